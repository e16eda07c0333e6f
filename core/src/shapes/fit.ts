import type { Point } from '../geometry/index';

/** A circle; points. */
export interface Circle {
  readonly centre: Point;
  readonly radius: number;
}

/** Rounds of the Gauss–Newton method; it has settled long before for points that lie round a circle. */
const ROUNDS = 40;

/**
 * The circle with the least sum of squared distances to points, or undefined for fewer than three
 * or such as lie on a line. Taubin's algebraic fit (G. Taubin 1991) is where the Gauss–Newton
 * method starts from (W. Gander, G. Golub, R. Strebel, “Least-squares fitting of circles and
 * ellipses”, BIT 34, 1994).
 */
export function fitCircle(points: readonly Point[]): Circle | undefined {
  let circle = taubinCircle(points);
  if (!circle) return undefined;
  for (let i = 0; i < ROUNDS; i++) {
    const step = gaussNewton(points, circle);
    if (!step) return circle;
    circle = step.circle;
    if (step.way < 1e-12 * circle.radius) break;
  }
  return circle;
}

/**
 * Taubin's circle fit in N. Chernov's form: a root of the characteristic polynomial by Newton's
 * method (Chernov, “Circular and linear regression”, 2010, 5.10). Undefined as for `fitCircle`.
 */
export function taubinCircle(points: readonly Point[]): Circle | undefined {
  const n = points.length;
  if (n < 3) return undefined;
  const mean = { x: 0, y: 0 };
  for (const { x, y } of points) {
    mean.x += x / n;
    mean.y += y / n;
  }
  let [xx, yy, xy, xz, yz, zz] = [0, 0, 0, 0, 0, 0];
  for (const p of points) {
    const x = p.x - mean.x;
    const y = p.y - mean.y;
    const z = x * x + y * y;
    xx += (x * x) / n;
    yy += (y * y) / n;
    xy += (x * y) / n;
    xz += (x * z) / n;
    yz += (y * z) / n;
    zz += (z * z) / n;
  }
  const z = xx + yy;
  const cov = xx * yy - xy * xy;
  if (cov <= 1e-12 * z * z) return undefined;
  const a3 = 4 * z;
  const a2 = -3 * z * z - zz;
  const a1 = zz * z + 4 * cov * z - xz * xz - yz * yz - z * z * z;
  const a0 = xz * xz * yy + yz * yz * xx - zz * cov - 2 * xz * yz * xy + z * z * cov;
  let root = 0;
  for (let i = 0; i < ROUNDS; i++) {
    const value = a0 + root * (a1 + root * (a2 + root * a3));
    const slope = a1 + root * (2 * a2 + 3 * root * a3);
    const next = root - value / slope;
    if (!Number.isFinite(next) || next < 0 || Math.abs(next - root) < 1e-14 * z) break;
    root = next;
  }
  const determinant = root * root - root * z + cov;
  if (determinant === 0) return undefined;
  const x = (xz * (yy - root) - yz * xy) / determinant / 2;
  const y = (yz * (xx - root) - xz * xy) / determinant / 2;
  return { centre: { x: x + mean.x, y: y + mean.y }, radius: Math.sqrt(x * x + y * y + z) };
}

/** One step towards the least squared distances, and how long it was. */
function gaussNewton(
  points: readonly Point[],
  { centre, radius }: Circle,
): { circle: Circle; way: number } | undefined {
  // Normal equations J'J d = -J'f with rows J = (-ux, -uy, -1), f = distance - radius.
  let [uu, uv, vv, u, v, fu, fv, f] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const p of points) {
    const dx = p.x - centre.x;
    const dy = p.y - centre.y;
    const r = Math.sqrt(dx * dx + dy * dy);
    if (r === 0) return undefined;
    const [nx, ny, off] = [dx / r, dy / r, r - radius];
    uu += nx * nx;
    uv += nx * ny;
    vv += ny * ny;
    u += nx;
    v += ny;
    fu += off * nx;
    fv += off * ny;
    f += off;
  }
  const n = points.length;
  const solved = solve3([uu, uv, u, fu], [uv, vv, v, fv], [u, v, n, f]);
  if (!solved) return undefined;
  const [dx, dy, dr] = solved;
  return {
    circle: { centre: { x: centre.x + dx, y: centre.y + dy }, radius: radius + dr },
    way: Math.hypot(dx, dy, dr),
  };
}

type Row = readonly [number, number, number, number];

/** Cramer's rule for three equations; undefined where they do not tell. */
function solve3(a: Row, b: Row, c: Row): [number, number, number] | undefined {
  const det = (i: number, j: number, k: number): number =>
    a[i] * (b[j] * c[k] - b[k] * c[j]) -
    a[j] * (b[i] * c[k] - b[k] * c[i]) +
    a[k] * (b[i] * c[j] - b[j] * c[i]);
  const whole = det(0, 1, 2);
  if (Math.abs(whole) < 1e-12) return undefined;
  return [det(3, 1, 2) / whole, det(0, 3, 2) / whole, det(0, 1, 3) / whole];
}

/** An ellipse: half axes in points, the longer one first, `turn` its direction in radians. */
export interface Ellipse {
  readonly centre: Point;
  readonly long: number;
  readonly short: number;
  readonly turn: number;
}

/**
 * The ellipse with the area, centre and second moments of what a closed way goes round (Green’s
 * theorem; a full ellipse has the variance a² / 4 along a half axis a). Undefined for no area.
 */
export function ellipseOfMoments(points: readonly Point[]): Ellipse | undefined {
  const [first] = points;
  let [area, mx, my] = [0, 0, 0];
  let [xx, yy, xy] = [0, 0, 0];
  for (let i = 0; i < points.length; i++) {
    const p = points[i];
    const q = points[(i + 1) % points.length];
    const [ax, ay, bx, by] = [p.x - first.x, p.y - first.y, q.x - first.x, q.y - first.y];
    const cross = ax * by - bx * ay;
    area += cross / 2;
    mx += ((ax + bx) * cross) / 6;
    my += ((ay + by) * cross) / 6;
    xx += ((ax * ax + ax * bx + bx * bx) * cross) / 12;
    yy += ((ay * ay + ay * by + by * by) * cross) / 12;
    xy += ((ax * by + 2 * ax * ay + 2 * bx * by + bx * ay) * cross) / 24;
  }
  if (area === 0) return undefined;
  const [cx, cy] = [mx / area, my / area];
  const vx = xx / area - cx * cx;
  const vy = yy / area - cy * cy;
  const vxy = xy / area - cx * cy;
  const spread = Math.hypot((vx - vy) / 2, vxy);
  const middle = (vx + vy) / 2;
  if (middle - spread <= 0) return undefined;
  return {
    centre: { x: first.x + cx, y: first.y + cy },
    long: 2 * Math.sqrt(middle + spread),
    short: 2 * Math.sqrt(middle - spread),
    turn: 0.5 * Math.atan2(2 * vxy, vx - vy),
  };
}

/** A straight line through a point, with its direction as a unit vector. */
export interface Line {
  readonly at: Point;
  readonly u: Point;
}

/** The line of closest fit (K. Pearson, 1901) through at least two points. */
export function fitLine(points: readonly Point[]): Line {
  const n = points.length;
  const at = { x: 0, y: 0 };
  for (const p of points) {
    at.x += p.x / n;
    at.y += p.y / n;
  }
  let [xx, yy, xy] = [0, 0, 0];
  for (const p of points) {
    xx += (p.x - at.x) ** 2;
    yy += (p.y - at.y) ** 2;
    xy += (p.x - at.x) * (p.y - at.y);
  }
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  return { at, u: { x: Math.cos(angle), y: Math.sin(angle) } };
}

/** Where two lines meet; undefined for lines that are (nearly) parallel. */
export function meeting(a: Line, b: Line): Point | undefined {
  const cross = a.u.x * b.u.y - a.u.y * b.u.x;
  if (Math.abs(cross) < 0.1) return undefined;
  const t = ((b.at.x - a.at.x) * b.u.y - (b.at.y - a.at.y) * b.u.x) / cross;
  return { x: a.at.x + t * a.u.x, y: a.at.y + t * a.u.y };
}
