import { distance, type Point } from '../geometry/index';
import { bendTowards, middleOf } from './arc';
import { axesOf, centreOf, isRound, sidesOf, type Shape } from './shape';

/** What a shape can be taken hold of by. */
export interface Handle {
  /** `corner`: a corner, an end or the end of a half axis. `side`: the middle of a side. */
  readonly kind: 'corner' | 'side' | 'centre';
  /** Place among the points, or among the sides. */
  readonly index: number;
  readonly at: Point;
}

/** The handles of a shape, those in the middle of sides last. */
export function handlesOf(shape: Shape): Handle[] {
  if (isRound(shape)) {
    const centre = shape.points[0];
    return [
      { kind: 'centre', index: 0, at: centre },
      ...shape.points.slice(1).map((at, i): Handle => ({ kind: 'corner', index: i + 1, at })),
    ];
  }
  return [
    ...shape.points.map((at, index): Handle => ({ kind: 'corner', index, at })),
    ...sidesOf(shape).map(({ from, to, bend }, index): Handle => ({
      kind: 'side',
      index,
      at: middleOf(from, to, bend),
    })),
  ];
}

/**
 * The shape after one of its handles was drawn to a point: corners and ends go there, sides bend
 * there. A rectangle stays one: its corners draw two sides along, its sides move as they are.
 */
export function dragHandle(shape: Shape, { kind, index }: Handle, to: Point): Shape {
  if (kind === 'centre') return movedTo(shape, to);
  if (isRound(shape)) return withAxis(shape, index, to);
  if (shape.form === 'rectangle')
    return kind === 'corner' ? withCorner(shape, index, to) : withSide(shape, index, to);
  if (kind === 'corner')
    return { ...shape, points: shape.points.map((p, i) => (i === index ? to : p)) };
  const sides = sidesOf(shape);
  const bends = sides.map(({ from, to: end, bend }, i) =>
    i === index ? settled(bendTowards(from, end, to), distance(from, end)) : bend,
  );
  return { ...shape, bends };
}

/** Sides drawn nearly straight are straight. */
const settled = (bend: number, length: number): number =>
  Math.abs(bend) < 0.02 * length ? 0 : bend;

function movedTo(shape: Shape, to: Point): Shape {
  const from = centreOf(shape);
  const points = shape.points.map((p) => ({ x: p.x + to.x - from.x, y: p.y + to.y - from.y }));
  return { ...shape, points };
}

/** One half axis of an ellipse ends at a point; the other turns with it. */
function withAxis(shape: Shape, index: number, to: Point): Shape {
  const [centre] = shape.points;
  const radius = distance(centre, to);
  if (radius === 0) return shape;
  if (shape.form === 'circle') return { ...shape, points: [centre, to] };
  const other = axesOf(shape)[index === 1 ? 1 : 0];
  const length = Math.hypot(other.x, other.y);
  const turn = index === 1 ? 1 : -1;
  const u = { x: (to.x - centre.x) / radius, y: (to.y - centre.y) / radius };
  const end = {
    x: centre.x - turn * u.y * length,
    y: centre.y + turn * u.x * length,
  };
  return { ...shape, points: index === 1 ? [centre, to, end] : [centre, end, to] };
}

/** The corner opposite stays where it is, and the sides keep their directions. */
function withCorner(shape: Shape, index: number, to: Point): Shape {
  const at = (i: number): Point => shape.points[(index + i) % 4];
  const fixed = at(2);
  const along = directionOf(at(1), fixed);
  const reach = (to.x - fixed.x) * along.x + (to.y - fixed.y) * along.y;
  const next = { x: fixed.x + reach * along.x, y: fixed.y + reach * along.y };
  const before = { x: to.x - reach * along.x, y: to.y - reach * along.y };
  const points = [...shape.points];
  points[index] = to;
  points[(index + 1) % 4] = next;
  points[(index + 3) % 4] = before;
  return { ...shape, points };
}

/** A side is moved across its direction. */
function withSide(shape: Shape, index: number, to: Point): Shape {
  const [a, b] = [shape.points[index], shape.points[(index + 1) % 4]];
  const u = directionOf(a, b);
  const across = u.x * (to.y - a.y) - u.y * (to.x - a.x);
  const moved = (p: Point): Point => ({ x: p.x - u.y * across, y: p.y + u.x * across });
  const points = [...shape.points];
  points[index] = moved(a);
  points[(index + 1) % 4] = moved(b);
  return { ...shape, points };
}

function directionOf(from: Point, to: Point): Point {
  const way = distance(from, to);
  return way === 0 ? { x: 1, y: 0 } : { x: (to.x - from.x) / way, y: (to.y - from.y) / way };
}
