import type { Point } from './point';

/** An axis-parallel box; `x0 <= x1` and `y0 <= y1`, in points. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** The box whose corners are the two given points, whichever corners they are. */
export function boxOf(a: Point, b: Point): Box {
  return {
    x0: Math.min(a.x, b.x),
    y0: Math.min(a.y, b.y),
    x1: Math.max(a.x, b.x),
    y1: Math.max(a.y, b.y),
  };
}

/** The smallest box around all points, or undefined for none. */
export function boundsOf(points: Iterable<Point>): Box | undefined {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const p of points) {
    if (p.x < x0) x0 = p.x;
    if (p.y < y0) y0 = p.y;
    if (p.x > x1) x1 = p.x;
    if (p.y > y1) y1 = p.y;
  }
  return x0 <= x1 ? { x0, y0, x1, y1 } : undefined;
}

/** The smallest box around two boxes. */
export function unite(a: Box, b: Box): Box {
  return {
    x0: Math.min(a.x0, b.x0),
    y0: Math.min(a.y0, b.y0),
    x1: Math.max(a.x1, b.x1),
    y1: Math.max(a.y1, b.y1),
  };
}

/** What two boxes share, or undefined when they do not touch. */
export function intersect(a: Box, b: Box): Box | undefined {
  const x0 = Math.max(a.x0, b.x0);
  const y0 = Math.max(a.y0, b.y0);
  const x1 = Math.min(a.x1, b.x1);
  const y1 = Math.min(a.y1, b.y1);
  return x0 <= x1 && y0 <= y1 ? { x0, y0, x1, y1 } : undefined;
}

/** Whether two boxes share at least a point. */
export function touches(a: Box, b: Box): boolean {
  return a.x0 <= b.x1 && b.x0 <= a.x1 && a.y0 <= b.y1 && b.y0 <= a.y1;
}

/** The box grown by `by` on every side (shrunk when negative). */
export function grow(box: Box, by: number): Box {
  return { x0: box.x0 - by, y0: box.y0 - by, x1: box.x1 + by, y1: box.y1 + by };
}

/** Whether the point lies in the box or on its edge. */
export function contains(box: Box, p: Point): boolean {
  return p.x >= box.x0 && p.x <= box.x1 && p.y >= box.y0 && p.y <= box.y1;
}

/** Width of the box, in its own unit. */
export const widthOf = (box: Box): number => box.x1 - box.x0;

/** Height of the box, in its own unit. */
export const heightOf = (box: Box): number => box.y1 - box.y0;
