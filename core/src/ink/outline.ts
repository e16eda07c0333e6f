import type { Spine } from './spine';
import { TOLERANCE } from './spine';

/** A closed polygon as x, y, x, y, … in points; filled by the nonzero winding rule. */
export type Polygon = Float64Array;

/** Which ends of a line are cut off straight instead of being rounded. */
export interface FlatEnds {
  readonly start: boolean;
  readonly end: boolean;
}

const roundEnds: FlatEnds = { start: false, end: false };

/** How far, in points, a single point may stand for the arc that joins two edges. */
const JOINT = TOLERANCE / 2;

/**
 * The outline of the discs `from`–`to` (both included) of a spine: the area a disc sweeps, with
 * round joins, and round ends but where they are flat. Between two discs the edges are their outer tangents. On the inner side of
 * a sharp turn the outline passes through the disc's centre, so that every part of it turns the
 * same way and the nonzero rule leaves no holes.
 */
export function outlineOf(
  spine: Spine,
  from = 0,
  to = spine.length - 1,
  flat: FlatEnds = roundEnds,
): Polygon {
  const { x, y, radius } = spine;
  left.clear();
  if (from >= to) {
    if (flat.start && flat.end) square(left, x[to], y[to], radius[to]);
    else arc(left, x[to], y[to], radius[to], 0, -2 * Math.PI);
    return left.toArray();
  }
  right.clear();
  // Outward directions of the edges on either side, as unit vectors.
  let lx = 0;
  let ly = 0;
  let rx = 0;
  let ry = 0;
  for (let i = from; i < to; i++) {
    const dx = x[i + 1] - x[i];
    const dy = y[i + 1] - y[i];
    const way = Math.sqrt(dx * dx + dy * dy);
    const ux = dx / way;
    const uy = dy / way;
    // The tangents' normals lean by the angle whose cosine is the narrowing per way.
    const lean = Math.max(-1, Math.min(1, (radius[i] - radius[i + 1]) / way));
    const across = Math.sqrt(1 - lean * lean);
    const nlx = ux * lean - uy * across;
    const nly = uy * lean + ux * across;
    const nrx = ux * lean + uy * across;
    const nry = uy * lean - ux * across;
    if (i === from) {
      cap(left, x[i], y[i], radius[i], nrx, nry, nlx, nly, flat.start);
    } else {
      join(left, x[i], y[i], radius[i], lx, ly, nlx, nly, -1, way);
      join(right, x[i], y[i], radius[i], rx, ry, nrx, nry, 1, way);
    }
    lx = nlx;
    ly = nly;
    rx = nrx;
    ry = nry;
  }
  cap(left, x[to], y[to], radius[to], lx, ly, rx, ry, flat.end);
  left.addReversed(right);
  return left.toArray();
}

/** Area of a polygon by the shoelace formula, in square points; the sign tells the direction. */
export function areaOf(polygon: Polygon): number {
  let twice = 0;
  const n = polygon.length;
  for (let i = 0; i < n; i += 2) {
    const j = (i + 2) % n;
    twice += polygon[i] * polygon[j + 1] - polygon[j] * polygon[i + 1];
  }
  return twice / 2;
}

/**
 * One side's way round a disc, from the outward direction (ax, ay) to (bx, by). `outward` is the
 * sign of a turn that opens a wedge on this side, which an arc fills.
 */
function join(
  side: PointList,
  x: number,
  y: number,
  radius: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  outward: 1 | -1,
  way: number,
): void {
  const cos = ax * bx + ay * by;
  const sin = ax * by - ay * bx;
  // Half the turn's cosine tells how high the arc is over its chord.
  const low = radius > JOINT ? 1 - JOINT / radius : 0;
  if (cos > 2 * low * low - 1 && cos > 0 && radius * Math.abs(sin) < way) {
    const mx = ax + bx;
    const my = ay + by;
    const reach = radius / Math.sqrt(mx * mx + my * my);
    side.add(x + mx * reach, y + my * reach);
    return;
  }
  // Straight back, rounding could call either side the inner one: both get the round tip.
  const isReversal = cos < 0 && Math.abs(sin) < 1e-6;
  if (isReversal || sin * outward > 0) {
    const start = Math.atan2(ay, ax);
    arc(side, x, y, radius, start, start + (isReversal ? outward * Math.PI : Math.atan2(sin, cos)));
    return;
  }
  side.add(x + radius * ax, y + radius * ay);
  side.add(x, y);
  side.add(x + radius * bx, y + radius * by);
}

/** An end: straight across, or round from one outward direction backwards in angle to another. */
function cap(
  side: PointList,
  x: number,
  y: number,
  radius: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  isFlat: boolean,
): void {
  if (isFlat) {
    side.add(x + radius * ax, y + radius * ay);
    side.add(x + radius * bx, y + radius * by);
    return;
  }
  const start = Math.atan2(ay, ax);
  const turn = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  arc(side, x, y, radius, start, start + (turn < 0 ? turn : turn - 2 * Math.PI));
}

/** What a flat-ended stroke leaves when it is only touched. */
function square(side: PointList, x: number, y: number, half: number): void {
  side.add(x - half, y + half);
  side.add(x + half, y + half);
  side.add(x + half, y - half);
  side.add(x - half, y - half);
}

/** Points of the arc from one angle to another (radians), both ends included. */
function arc(
  side: PointList,
  x: number,
  y: number,
  radius: number,
  from: number,
  to: number,
): void {
  const step = 2 * Math.acos(Math.max(0, 1 - TOLERANCE / Math.max(radius, TOLERANCE)));
  const pieces = Math.max(1, Math.ceil(Math.abs(to - from) / step));
  for (let k = 0; k <= pieces; k++) {
    const angle = from + ((to - from) * k) / pieces;
    side.add(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
  }
}

class PointList {
  private values = new Float64Array(512);
  private used = 0;

  clear(): void {
    this.used = 0;
  }

  add(x: number, y: number): void {
    if (this.used + 2 > this.values.length) {
      const bigger = new Float64Array(this.values.length * 2 + 16);
      bigger.set(this.values);
      this.values = bigger;
    }
    this.values[this.used++] = x;
    this.values[this.used++] = y;
  }

  addReversed(other: PointList): void {
    for (let i = other.used - 2; i >= 0; i -= 2) this.add(other.values[i], other.values[i + 1]);
  }

  toArray(): Polygon {
    return this.values.slice(0, this.used);
  }
}

/** The two sides of the outline being made; kept, for making one takes no longer than allocating. */
const left = new PointList();
const right = new PointList();
