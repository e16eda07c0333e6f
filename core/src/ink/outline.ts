import type { Spine } from './spine';
import { TOLERANCE } from './spine';

/** A closed polygon as x, y, x, y, … in points; filled by the nonzero winding rule. */
export type Polygon = Float64Array;

/** Directions closer than this (radians) are joined without an arc. */
const STRAIGHT = 0.12;

/**
 * The outline of the discs `from`–`to` (both included) of a spine: the area a disc sweeps, with
 * round ends and joins. Between two discs the edges are their outer tangents. On the inner side of
 * a sharp turn the outline passes through the disc's centre, so that every part of it turns the
 * same way and the nonzero rule leaves no holes.
 */
export function outlineOf(spine: Spine, from = 0, to = spine.length - 1): Polygon {
  const left = new PointList((to - from + 1) * 3 + 24);
  if (from >= to) {
    arc(left, spine.x[to], spine.y[to], spine.radius[to], 0, -2 * Math.PI);
    return left.toArray();
  }
  const right = new PointList((to - from + 1) * 3);
  const { x, y, radius } = spine;
  let heading = 0;
  let spread = 0;
  for (let i = from; i < to; i++) {
    const dx = x[i + 1] - x[i];
    const dy = y[i + 1] - y[i];
    const way = Math.hypot(dx, dy);
    const nextHeading = Math.atan2(dy, dx);
    const nextSpread = Math.acos(Math.max(-1, Math.min(1, (radius[i] - radius[i + 1]) / way)));
    if (i === from) {
      const leftAngle = nextHeading + nextSpread;
      arc(left, x[i], y[i], radius[i], nextHeading - nextSpread, leftAngle - 2 * Math.PI);
    } else {
      const turn = wrap(nextHeading - heading);
      const widening = nextSpread - spread;
      join(left, x[i], y[i], radius[i], heading + spread, turn + widening, -1, way);
      join(right, x[i], y[i], radius[i], heading - spread, turn - widening, 1, way);
    }
    heading = nextHeading;
    spread = nextSpread;
  }
  arc(left, x[to], y[to], radius[to], heading + spread, heading - spread);
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

/** An angle brought into (−π, π]. */
function wrap(angle: number): number {
  const turns = angle % (2 * Math.PI);
  if (turns > Math.PI) return turns - 2 * Math.PI;
  return turns <= -Math.PI ? turns + 2 * Math.PI : turns;
}

/**
 * One side's way round a disc, from the angle `before` by `turn`. `outward` is the sign of a turn
 * away from this side, which leaves a wedge to be filled by an arc.
 */
function join(
  side: PointList,
  x: number,
  y: number,
  radius: number,
  before: number,
  turn: number,
  outward: 1 | -1,
  way: number,
): void {
  if (Math.abs(turn) < STRAIGHT && radius * Math.abs(turn) < way) {
    const middle = before + turn / 2;
    side.add(x + radius * Math.cos(middle), y + radius * Math.sin(middle));
    return;
  }
  const after = before + turn;
  if (turn * outward > 0) {
    arc(side, x, y, radius, before, after);
    return;
  }
  side.add(x + radius * Math.cos(before), y + radius * Math.sin(before));
  side.add(x, y);
  side.add(x + radius * Math.cos(after), y + radius * Math.sin(after));
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
  const step = 2 * Math.acos(Math.max(0, 1 - TOLERANCE / 2 / Math.max(radius, TOLERANCE)));
  const pieces = Math.max(1, Math.ceil(Math.abs(to - from) / step));
  for (let k = 0; k <= pieces; k++) {
    const angle = from + ((to - from) * k) / pieces;
    side.add(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
  }
}

class PointList {
  private values: Float64Array;
  private used = 0;

  constructor(points: number) {
    this.values = new Float64Array(points * 2);
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
