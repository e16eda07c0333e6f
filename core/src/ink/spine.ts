/** How far, in points, a drawn edge may lie from the true curve: 0.16 px at 800 %. */
export const TOLERANCE = 0.02;
/** Radius may change by at most this much per unit of way, so that no disc swallows the next. */
const STEEPEST = 0.5;
/** Points nearer than this are one. */
export const SAME_PLACE = 0.005;

/** Math.hypot guards against overflow, which costs more than all the rest here. */
const length = (x: number, y: number): number => Math.sqrt(x * x + y * y);

interface Place {
  readonly x: number;
  readonly y: number;
}

/** Control points of the curve at hand: one at a time, for speed. */
let bx = 0;
let by = 0;
let cx = 0;
let cy = 0;

/**
 * Puts the curve from `p1` to `p2` at hand, shaped by their neighbours where they have any, and
 * returns the number of chords it takes.
 */
export function curveBetween(
  p0: Place | undefined,
  p1: Place,
  p2: Place,
  p3: Place | undefined,
): number {
  const d2 = Math.sqrt(length(p2.x - p1.x, p2.y - p1.y));
  // Bézier control points: for even ways those of a straight line, at its thirds.
  bx = (2 * p1.x + p2.x) / 3;
  by = (2 * p1.y + p2.y) / 3;
  cx = (p1.x + 2 * p2.x) / 3;
  cy = (p1.y + 2 * p2.y) / 3;
  if (p0) {
    const d1 = Math.sqrt(length(p1.x - p0.x, p1.y - p0.y));
    const w = 3 * d1 * (d1 + d2);
    const m = 2 * d1 * d1 + 3 * d1 * d2 + d2 * d2;
    bx = (d1 * d1 * p2.x - d2 * d2 * p0.x + m * p1.x) / w;
    by = (d1 * d1 * p2.y - d2 * d2 * p0.y + m * p1.y) / w;
  }
  if (p3) {
    const d3 = Math.sqrt(length(p3.x - p2.x, p3.y - p2.y));
    const w = 3 * d3 * (d3 + d2);
    const m = 2 * d3 * d3 + 3 * d3 * d2 + d2 * d2;
    cx = (d3 * d3 * p1.x - d2 * d2 * p3.x + m * p2.x) / w;
    cy = (d3 * d3 * p1.y - d2 * d2 * p3.y + m * p2.y) / w;
  }
  // An end without neighbour heads for the other end's control point, which never overshoots.
  if (!p0 && p3) {
    bx = (p1.x + cx) / 2;
    by = (p1.y + cy) / 2;
  } else if (p0 && !p3) {
    cx = (p2.x + bx) / 2;
    cy = (p2.y + by) / 2;
  }
  // Wang's bound on the number of chords of a cubic Bézier.
  const bend = Math.max(
    length(p1.x - 2 * bx + cx, p1.y - 2 * by + cy),
    length(bx - 2 * cx + p2.x, by - 2 * cy + p2.y),
  );
  return Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / TOLERANCE)));
}

/** Where the curve at hand is at `t` of 0–1. */
export const curveX = (p1: Place, p2: Place, t: number): number => cubic(p1.x, bx, cx, p2.x, t);
export const curveY = (p1: Place, p2: Place, t: number): number => cubic(p1.y, by, cy, p2.y, t);

function cubic(a: number, b: number, c: number, d: number, t: number): number {
  const s = 1 - t;
  return s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d;
}

interface Knot {
  readonly x: number;
  readonly y: number;
  radius: number;
  readonly tone: number;
}

/**
 * The spine of a stroke: discs (x, y, radius; points) whose swept area is the ink. It grows sample
 * by sample. A centripetal Catmull–Rom spline runs through the given points (C. Yuksel, S.
 * Schaefer, J. Keyser, "Parameterization and applications of Catmull–Rom curves", CAD 2011), so a
 * new point only shapes the last segment; discs before `settled` never change again.
 */
export class Spine {
  x = new Float64Array(64);
  y = new Float64Array(64);
  radius = new Float64Array(64);
  /** How dark the ink is at each disc, 0–1. */
  tone = new Float64Array(64);
  /** Number of discs; those behind `settled` are there after `complete`. */
  length = 0;
  /** Number of discs that are final. */
  settled = 0;

  /** The last three points. */
  private p0: Knot | undefined;
  private p1: Knot | undefined;
  private p2: Knot | undefined;

  /** Adds a point of the centre line. One that only repeats the last place is left out. */
  add(x: number, y: number, radius: number, tone = 1): void {
    const last = this.p2;
    this.length = this.settled;
    if (last && length(x - last.x, y - last.y) < SAME_PLACE) {
      // A pen pressed harder without moving makes its dot bigger.
      if (!this.p1 && radius > last.radius) last.radius = this.radius[0] = radius;
      return;
    }
    const knot = { x, y, radius, tone };
    if (!last) this.disc(x, y, radius, tone);
    else if (this.p1) this.segment(this.p0, this.p1, last, knot);
    this.settled = this.length;
    this.p0 = this.p1;
    this.p1 = last;
    this.p2 = knot;
  }

  /**
   * Brings the line to its end, for now: over the last segment, which the next point still shapes,
   * and on to (x, y), the raw place of the nib, which smoothing has not reached.
   */
  complete(x: number, y: number): void {
    this.length = this.settled;
    if (!this.p2) return;
    if (this.p1) this.segment(this.p0, this.p1, this.p2, undefined);
    this.extend(x, y);
  }

  /** Goes straight on to where the nib is thought to be next, until a point is added. */
  extend(x: number, y: number): void {
    const i = this.length - 1;
    if (i >= 0 && length(x - this.x[i], y - this.y[i]) >= SAME_PLACE)
      this.disc(x, y, this.radius[i], this.tone[i]);
  }

  /** Appends the discs from `p1` to `p2`, between their neighbours where they have any. */
  private segment(p0: Knot | undefined, p1: Knot, p2: Knot, p3: Knot | undefined): void {
    const chords = curveBetween(p0, p1, p2, p3);
    for (let k = 1; k < chords; k++) {
      const t = k / chords;
      this.disc(
        curveX(p1, p2, t),
        curveY(p1, p2, t),
        p1.radius + (p2.radius - p1.radius) * t,
        p1.tone + (p2.tone - p1.tone) * t,
      );
    }
    this.disc(p2.x, p2.y, p2.radius, p2.tone);
  }

  private disc(x: number, y: number, radius: number, tone: number): void {
    const n = this.length;
    if (n === this.x.length) this.enlarge();
    if (n > 0) {
      const way = length(x - this.x[n - 1], y - this.y[n - 1]);
      if (way < SAME_PLACE / 4) return;
      const before = this.radius[n - 1];
      const most = STEEPEST * way;
      radius = Math.min(before + most, Math.max(before - most, radius));
    }
    this.x[n] = x;
    this.y[n] = y;
    this.radius[n] = radius;
    this.tone[n] = tone;
    this.length = n + 1;
  }

  private enlarge(): void {
    const twice = (old: Float64Array): Float64Array<ArrayBuffer> => {
      const bigger = new Float64Array(old.length * 2);
      bigger.set(old);
      return bigger;
    };
    this.x = twice(this.x);
    this.y = twice(this.y);
    this.radius = twice(this.radius);
    this.tone = twice(this.tone);
  }
}
