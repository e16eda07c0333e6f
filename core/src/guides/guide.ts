import { distance, type Point } from '../geometry/index';

/** What can be laid on a page to draw along. */
export const guideKinds = ['ruler', 'setSquare'] as const;
export type GuideKind = (typeof guideKinds)[number];

/**
 * A guide on a page as it is shown, in points: where its middle lies, how it is turned (degrees,
 * counter-clockwise, 0 level) and how long its longest edge is.
 */
export interface Guide {
  readonly kind: GuideKind;
  readonly at: Point;
  readonly angle: number;
  readonly length: number;
}

/** A straight edge, from where its measure begins. Points on the page as shown. */
export interface Edge {
  readonly from: Point;
  readonly to: Point;
}

/** How wide a ruler is, as a share of its length. */
const RULER_WIDTH = 0.12;

/**
 * The corners of a guide, clockwise as seen. A ruler has its measure on its upper edge; a set square
 * its right angle below, between two legs of one length, and 45° at the ends of its longest edge.
 */
export function guideCorners({ kind, at, angle, length }: Guide): Point[] {
  const half = length / 2;
  const corners =
    kind === 'ruler'
      ? [
          { x: -half, y: (-RULER_WIDTH * length) / 2 },
          { x: half, y: (-RULER_WIDTH * length) / 2 },
          { x: half, y: (RULER_WIDTH * length) / 2 },
          { x: -half, y: (RULER_WIDTH * length) / 2 },
        ]
      : [
          { x: -half, y: -half / 3 },
          { x: half, y: -half / 3 },
          { x: 0, y: half - half / 3 },
        ];
  const radians = (-angle * Math.PI) / 180;
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return corners.map(({ x, y }) => ({ x: at.x + c * x - s * y, y: at.y + s * x + c * y }));
}

/** The edges of a guide that are drawn along: a ruler's two long ones, all three of a set square. */
export function guideEdges(guide: Guide): Edge[] {
  const corners = guideCorners(guide);
  if (guide.kind === 'ruler')
    return [
      { from: corners[0], to: corners[1] },
      { from: corners[3], to: corners[2] },
    ];
  return corners.map((from, i) => ({ from, to: corners[(i + 1) % 3] }));
}

/** The edge nearest to a point that is no further off than `within`, if there is one. */
export function edgeNear(guides: readonly Guide[], point: Point, within: number): Edge | undefined {
  let nearest = within;
  let found: Edge | undefined;
  for (const edge of guides.flatMap(guideEdges)) {
    const length = distance(edge.from, edge.to);
    const along = alongEdge(edge, point);
    // A bit beyond its ends an edge still guides: lines are begun before the ruler's end.
    if (along < -within || along > length + within) continue;
    const off = distance(point, onEdge(edge, point));
    if (off > nearest) continue;
    nearest = off;
    found = edge;
  }
  return found;
}

/** How far along an edge (points from its start) a point lies, seen at right angles to it. */
export function alongEdge({ from, to }: Edge, point: Point): number {
  const length = distance(from, to);
  return ((point.x - from.x) * (to.x - from.x) + (point.y - from.y) * (to.y - from.y)) / length;
}

/** The point of an edge's line nearest to a point. */
export function onEdge(edge: Edge, point: Point): Point {
  const { from, to } = edge;
  const t = alongEdge(edge, point) / distance(from, to);
  return { x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) };
}

/** An angle in degrees from 0 up to 360, at a multiple of 15° when it is within `near` of it. */
export function settledAngle(angle: number, near = 1.2): number {
  const nearest = Math.round(angle / 15) * 15;
  const settled = Math.abs(angle - nearest) <= near ? nearest : angle;
  return ((settled % 360) + 360) % 360;
}
