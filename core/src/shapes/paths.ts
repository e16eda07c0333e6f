import { distance, type Point } from '../geometry/index';
import { arcPoints, ellipsePoints } from './arc';
import { axesOf, isClosed, isRound, sidesOf, type Shape } from './shape';

/** Length of an arrow's head in widths of its line, in points at least, and as a share of it at most. */
const HEAD = { widths: 5, least: 7, most: 0.45 } as const;
/** Half the angle at an arrow's tip, in radians. */
const BARB = 0.42;
/** So near to a corner, in points, the line still runs straight: the spline keeps corners sharp. */
const NEAR_CORNER = 0.02;

/**
 * The ways a pen of `width` (points) takes to draw a shape: the outline in one, an arrow's head in
 * another. Closed ways end where they begin.
 */
export function shapePaths(shape: Shape, width: number): Point[][] {
  const outline = outlinePoints(shape);
  if (shape.form !== 'arrow') return [outline];
  return [outline, arrowHead(outline, width)];
}

/** The area a closed shape goes round as x, y, x, y, …; undefined for lines and arrows. */
export function shapeArea(shape: Shape): Float64Array | undefined {
  if (!isClosed(shape)) return undefined;
  return Float64Array.from(outlinePoints(shape).flatMap(({ x, y }) => [x, y]));
}

function outlinePoints(shape: Shape): Point[] {
  if (isRound(shape)) {
    const [a, b] = axesOf(shape);
    return ellipsePoints(shape.points[0], a, b);
  }
  const sides = sidesOf(shape);
  return [
    sides[0].from,
    ...sides.flatMap(({ from, to, bend }) => {
      const points = arcPoints(from, to, bend);
      return withSharpEnds(from, points);
    }),
  ];
}

function withSharpEnds(from: Point, points: readonly Point[]): Point[] {
  const first = points[0];
  const last = points[points.length - 1];
  const beforeLast = points[points.length - 2] ?? from;
  return [towards(from, first), ...points.slice(0, -1), towards(last, beforeLast), last];
}

function towards(from: Point, to: Point): Point {
  const way = distance(from, to);
  const t = way === 0 ? 0 : Math.min(0.25, NEAR_CORNER / way);
  return { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
}

function arrowHead(outline: readonly Point[], width: number): Point[] {
  const tip = outline[outline.length - 1];
  let length = 0;
  for (let i = 1; i < outline.length; i++) length += distance(outline[i - 1], outline[i]);
  const size = Math.min(Math.max(HEAD.least, HEAD.widths * width), HEAD.most * length);
  // The head points as the line runs over its length, bent or not.
  const from = [...outline].reverse().find((p) => distance(p, tip) >= size) ?? outline[0];
  const angle = Math.atan2(tip.y - from.y, tip.x - from.x);
  const barb = (turn: number): Point => ({
    x: tip.x - size * Math.cos(angle + turn),
    y: tip.y - size * Math.sin(angle + turn),
  });
  const [left, right] = [barb(BARB), barb(-BARB)];
  return [left, ...withSharpEnds(left, [tip]), ...withSharpEnds(tip, [right])];
}
