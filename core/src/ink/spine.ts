/** How far, in points, a drawn edge may lie from the true curve: 0.16 px at 800 %. */
export const TOLERANCE = 0.02;
/** Radius may change by at most this much per unit of way, so that no disc swallows the next. */
const STEEPEST = 0.5;
const SAME_PLACE = 0.005;

/** Math.hypot guards against overflow, which costs more than all the rest here. */
const length = (x: number, y: number): number => Math.sqrt(x * x + y * y);

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
  length = 0;
  /** Number of discs that are final. */
  settled = 0;

  private readonly knots: { x: number; y: number; radius: number }[] = [];

  /** Adds a point of the centre line. Returns false when it only repeats the last place. */
  add(x: number, y: number, radius: number): boolean {
    const last = this.knots.at(-1);
    if (last && length(x - last.x, y - last.y) < SAME_PLACE) {
      // A pen pressed harder without moving makes its dot bigger.
      if (this.knots.length === 1 && radius > last.radius) {
        last.radius = radius;
        this.radius[0] = radius;
      }
      return false;
    }
    this.knots.push({ x, y, radius });
    this.length = this.settled;
    const n = this.knots.length;
    if (n === 1) {
      this.disc(x, y, radius);
      return true;
    }
    if (n > 2) {
      this.segment(n - 3, true);
      this.settled = this.length;
    } else {
      this.settled = 1;
    }
    this.segment(n - 2, false);
    return true;
  }

  /**
   * Ends the line, for now, at a point the centre line does not pass yet: the raw place of the
   * nib, which smoothing has not reached. The next `add` takes it back.
   */
  reach(x: number, y: number): void {
    if (this.length === 0) return;
    const i = this.length - 1;
    if (length(x - this.x[i], y - this.y[i]) >= SAME_PLACE) this.disc(x, y, this.radius[i]);
  }

  /** Appends the discs of the segment from knot `i` to knot `i + 1`. */
  private segment(i: number, hasNext: boolean): void {
    const p1 = this.knots[i];
    const p2 = this.knots[i + 1];
    const p0 = i > 0 ? this.knots[i - 1] : p1;
    const p3 = hasNext ? this.knots[i + 2] : p2;
    const d1 = Math.sqrt(length(p1.x - p0.x, p1.y - p0.y));
    const d2 = Math.sqrt(length(p2.x - p1.x, p2.y - p1.y));
    const d3 = Math.sqrt(length(p3.x - p2.x, p3.y - p2.y));
    let bx = p1.x;
    let by = p1.y;
    let cx = p2.x;
    let cy = p2.y;
    if (d1 > 0) {
      const w = 3 * d1 * (d1 + d2);
      const m = 2 * d1 * d1 + 3 * d1 * d2 + d2 * d2;
      bx = (d1 * d1 * p2.x - d2 * d2 * p0.x + m * p1.x) / w;
      by = (d1 * d1 * p2.y - d2 * d2 * p0.y + m * p1.y) / w;
    }
    if (d3 > 0) {
      const w = 3 * d3 * (d3 + d2);
      const m = 2 * d3 * d3 + 3 * d3 * d2 + d2 * d2;
      cx = (d3 * d3 * p1.x - d2 * d2 * p3.x + m * p2.x) / w;
      cy = (d3 * d3 * p1.y - d2 * d2 * p3.y + m * p2.y) / w;
    }
    // Wang's bound on the number of chords of a cubic Bézier.
    const bend = Math.max(
      length(p1.x - 2 * bx + cx, p1.y - 2 * by + cy),
      length(bx - 2 * cx + p2.x, by - 2 * cy + p2.y),
    );
    const chords = Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / TOLERANCE)));
    for (let k = 1; k <= chords; k++) {
      const t = k / chords;
      const s = 1 - t;
      const q0 = s * s * s;
      const q1 = 3 * s * s * t;
      const q2 = 3 * s * t * t;
      const q3 = t * t * t;
      this.disc(
        q0 * p1.x + q1 * bx + q2 * cx + q3 * p2.x,
        q0 * p1.y + q1 * by + q2 * cy + q3 * p2.y,
        p1.radius + (p2.radius - p1.radius) * t,
      );
    }
  }

  private disc(x: number, y: number, radius: number): void {
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
  }
}
