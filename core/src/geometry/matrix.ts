import { boundsOf, type Box } from './box';
import type { Point } from './point';

/**
 * An affine map written as in PDF (ISO 32000-1, 8.3.3): x' = a x + c y + e, y' = b x + d y + f.
 */
export type Matrix = readonly [number, number, number, number, number, number];

export const identity: Matrix = [1, 0, 0, 1, 0, 0];

/** The map that first does `first`, then `then`. */
export function compose(first: Matrix, then: Matrix): Matrix {
  const [a, b, c, d, e, f] = first;
  const [A, B, C, D, E, F] = then;
  return [
    a * A + b * C,
    a * B + b * D,
    c * A + d * C,
    c * B + d * D,
    e * A + f * C + E,
    e * B + f * D + F,
  ];
}

/** The inverse map. Throws RangeError for a matrix that flattens the plane. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix {
  const det = a * d - b * c;
  if (det === 0) throw new RangeError('matrix has no inverse');
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** Whether the map moves everything alike, but for rounding on the way to it. */
export function isTranslation([a, b, c, d]: Matrix): boolean {
  return [a - 1, b, c, d - 1].every((part) => Math.abs(part) < 1e-9);
}

/** Where the map sends a point. */
export function transform([a, b, c, d, e, f]: Matrix, p: Point): Point {
  return { x: a * p.x + c * p.y + e, y: b * p.x + d * p.y + f };
}

/** The smallest axis-parallel box around the image of a box. */
export function transformBox(m: Matrix, box: Box): Box {
  const corners = [
    { x: box.x0, y: box.y0 },
    { x: box.x1, y: box.y0 },
    { x: box.x1, y: box.y1 },
    { x: box.x0, y: box.y1 },
  ].map((p) => transform(m, p));
  return boundsOf(corners)!;
}
