import { distance, transform, type Matrix, type Point } from '../geometry/index';

/** What a shape can be. */
export const shapeForms = [
  'line',
  'arrow',
  'triangle',
  'rectangle',
  'polygon',
  'ellipse',
  'circle',
] as const;
export type ShapeForm = (typeof shapeForms)[number];

/**
 * A shape apart from its ink; page space, points. `points` are, for a line or an arrow, its two
 * ends; for a triangle, a rectangle or a polygon, its corners in order; for an ellipse, its centre
 * and the ends of two half axes at right angles; for a circle, its centre and a point on it.
 */
export interface Shape {
  readonly form: ShapeForm;
  readonly points: readonly Point[];
  /**
   * For each side, how far its middle bulges to the right of its way as seen, as an arc of a circle,
   * in points; left out: all are straight.
   */
  readonly bends?: readonly number[] | undefined;
}

/** Least and most points of each form. */
export const pointCounts: Record<ShapeForm, readonly [number, number]> = {
  line: [2, 2],
  arrow: [2, 2],
  triangle: [3, 3],
  rectangle: [4, 4],
  polygon: [3, 60],
  ellipse: [3, 3],
  circle: [2, 2],
};

/** Whether a shape goes round an area. */
export const isClosed = ({ form }: Shape): boolean => form !== 'line' && form !== 'arrow';

/** Whether a shape is a circle or an ellipse. */
export const isRound = ({ form }: Shape): boolean => form === 'circle' || form === 'ellipse';

/** The middle of a shape: what it is turned and enlarged about. */
export function centreOf(shape: Shape): Point {
  if (isRound(shape)) return shape.points[0];
  const { points } = shape;
  const sum = points.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/** The sides of a shape with corners or ends, in order, each with its bend in points. */
export function sidesOf({
  form,
  points,
  bends,
}: Shape): { from: Point; to: Point; bend: number }[] {
  const count = form === 'line' || form === 'arrow' ? 1 : points.length;
  return Array.from({ length: count }, (_, i) => ({
    from: points[i],
    to: points[(i + 1) % points.length],
    bend: bends?.[i] ?? 0,
  }));
}

/** Half axes of an ellipse or a circle as vectors from its centre, in points. */
export function axesOf({ points: [centre, a, b] }: Shape): [Point, Point] {
  const u = { x: a.x - centre.x, y: a.y - centre.y };
  if (!b) return [u, { x: -u.y, y: u.x }];
  return [u, { x: b.x - centre.x, y: b.y - centre.y }];
}

/**
 * A shape under an affine map. A circle that is no circle afterwards becomes an ellipse, a
 * rectangle that has lost its right angles a polygon. Bends grow with the map's mean scale.
 */
export function transformShape(shape: Shape, matrix: Matrix): Shape {
  const [a, b, c, d] = matrix;
  const determinant = a * d - b * c;
  const scale = Math.sqrt(Math.abs(determinant));
  const bends = shape.bends?.map((bend) => bend * scale * Math.sign(determinant));
  const keepsAngles =
    Math.abs(a * c + b * d) <= 1e-9 * Math.abs(determinant) &&
    Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) <= 1e-9 * scale;
  if (isRound(shape) && !keepsAngles) return transformedEllipse(shape, matrix);
  const points = shape.points.map((p) => transform(matrix, p));
  const moved: Shape = { ...shape, points, ...(bends ? { bends } : {}) };
  return moved.form === 'rectangle' && !hasRightAngles(points)
    ? { ...moved, form: 'polygon' }
    : moved;
}

/**
 * The image of an ellipse. Conjugate half diameters p and q become half axes at the parameter t
 * with tan 2t = 2 p·q / (p·p − q·q) (Rytz's construction in coordinates).
 */
function transformedEllipse(shape: Shape, matrix: Matrix): Shape {
  const centre = transform(matrix, shape.points[0]);
  const [p, q] = axesOf(shape).map(({ x, y }) => ({
    x: matrix[0] * x + matrix[2] * y,
    y: matrix[1] * x + matrix[3] * y,
  }));
  const t =
    0.5 * Math.atan2(2 * (p.x * q.x + p.y * q.y), p.x ** 2 + p.y ** 2 - q.x ** 2 - q.y ** 2);
  const at = (angle: number): Point => ({
    x: centre.x + p.x * Math.cos(angle) + q.x * Math.sin(angle),
    y: centre.y + p.y * Math.cos(angle) + q.y * Math.sin(angle),
  });
  return { form: 'ellipse', points: [centre, at(t), at(t + Math.PI / 2)] };
}

/** Points to which a place is rounded at the most: a side no longer than that has no direction. */
const ROUNDING = 1e-9;

/** Whether the angles of a quadrilateral are right ones, but for rounding. */
export function hasRightAngles(points: readonly Point[]): boolean {
  return points.every((p, i) => {
    const [before, after] = [points[(i + 3) % 4], points[(i + 1) % 4]];
    const [ax, ay] = [before.x - p.x, before.y - p.y];
    const [bx, by] = [after.x - p.x, after.y - p.y];
    const [a, b] = [distance(before, p), distance(after, p)];
    return Math.abs(ax * bx + ay * by) <= 1e-6 * a * b + ROUNDING * (a + b + ROUNDING);
  });
}
