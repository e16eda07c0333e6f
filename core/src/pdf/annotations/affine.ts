import { transform, type Matrix, type Point } from '../../geometry/index';

/** How far, in points, a place may lie from where a map sends it: a little more than rounding to 1/100. */
const NEAR = 0.1;

/**
 * The map that sends each point of one list to the one at its place in another, if there is one: a translation, or
 * the best affine map (linear least squares, normal equations). Undefined for lists of other lengths or shapes.
 */
export function mapBetween(from: readonly Point[], to: readonly Point[]): Matrix | undefined {
  if (from.length !== to.length || from.length === 0) return undefined;
  const [a, b] = [meanOf(from), meanOf(to)];
  const moved: Matrix = [1, 0, 0, 1, b.x - a.x, b.y - a.y];
  if (fits(moved, from, to)) return moved;
  let [xx, xy, yy, xu, yu, xv, yv] = [0, 0, 0, 0, 0, 0, 0];
  from.forEach((point, i) => {
    const [x, y] = [point.x - a.x, point.y - a.y];
    const [u, v] = [to[i].x - b.x, to[i].y - b.y];
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xu += x * u;
    yu += y * u;
    xv += x * v;
    yv += y * v;
  });
  const det = xx * yy - xy * xy;
  // Points on one line say nothing of what is beside it: enlarged alike in all directions.
  const isLine = det <= 1e-9 * xx * yy || det < 1e-6;
  const linear = isLine
    ? alike(xx + yy, xu + yv, xv - yu)
    : ([
        (xu * yy - yu * xy) / det,
        (xv * yy - yv * xy) / det,
        (yu * xx - xu * xy) / det,
        (yv * xx - xv * xy) / det,
      ] as const);
  if (!linear) return undefined;
  const [m11, m12, m21, m22] = linear;
  const map: Matrix = [
    m11,
    m12,
    m21,
    m22,
    b.x - m11 * a.x - m21 * a.y,
    b.y - m12 * a.x - m22 * a.y,
  ];
  return Math.abs(m11 * m22 - m12 * m21) > 1e-9 && fits(map, from, to) ? map : undefined;
}

/** Turned and enlarged, by the sums over all points (C. F. Gauss's method in complex numbers). */
function alike(
  length: number,
  real: number,
  imaginary: number,
): readonly [number, number, number, number] | undefined {
  if (length === 0) return undefined;
  const [c, s] = [real / length, imaginary / length];
  return [c, s, -s, c];
}

const meanOf = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, { x }) => sum + x, 0) / points.length,
  y: points.reduce((sum, { y }) => sum + y, 0) / points.length,
});

const fits = (map: Matrix, from: readonly Point[], to: readonly Point[]): boolean =>
  from.every((point, i) => {
    const at = transform(map, point);
    return Math.abs(at.x - to[i].x) <= NEAR && Math.abs(at.y - to[i].y) <= NEAR;
  });
