import type { Point } from '../geometry/index';
import type { Polygon } from './outline';

/** Deviation from straight, as a share of the pen's width and of the way, that counts as meant. */
const OF_WIDTH = 0.4;
const OF_LENGTH = 0.035;
/** Lines this near to level or upright, in radians, are made so. */
const NEARLY_LEVEL = 0.06;

/** A straight line as wide as `width`, in points. */
export interface Bar {
  readonly from: Point;
  readonly to: Point;
  readonly width: number;
}

/** The line that fits points best, kept up to date point by point. */
export class LineFit {
  private n = 0;
  private readonly sum = { x: 0, y: 0, xx: 0, xy: 0, yy: 0 };
  private first: Point | undefined;
  private last: Point | undefined;

  add({ x, y }: Point): void {
    this.first ??= { x, y };
    this.last = { x, y };
    // Sums about the first point lose no digits far from the origin.
    const [dx, dy] = [x - this.first.x, y - this.first.y];
    const { sum } = this;
    this.n++;
    sum.x += dx;
    sum.y += dy;
    sum.xx += dx * dx;
    sum.xy += dx * dy;
    sum.yy += dy * dy;
  }

  /**
   * The points' way as a straight line, or undefined when it is not nearly straight for a pen of
   * `width`. The line is the one of least squared distances (K. Pearson, “On lines and planes of
   * closest fit”, 1901): the major axis of the points' covariance.
   */
  bar(width: number): Bar | undefined {
    const { first, last, n, sum } = this;
    if (!first || !last) return undefined;
    const length = Math.hypot(last.x - first.x, last.y - first.y);
    if (length < width / 2)
      return this.reaches(width) ? undefined : { from: first, to: last, width };
    const mean = { x: sum.x / n, y: sum.y / n };
    const xx = sum.xx / n - mean.x * mean.x;
    const xy = sum.xy / n - mean.x * mean.y;
    const yy = sum.yy / n - mean.y * mean.y;
    const spread = Math.hypot((xx - yy) / 2, xy);
    const off = Math.sqrt(Math.max(0, (xx + yy) / 2 - spread));
    if (off > Math.max(OF_WIDTH * width, OF_LENGTH * length)) return undefined;
    const angle = levelled(0.5 * Math.atan2(2 * xy, xx - yy));
    const u = { x: Math.cos(angle), y: Math.sin(angle) };
    const middle = { x: first.x + mean.x, y: first.y + mean.y };
    const along = (p: Point): Point => {
      const t = u.x * (p.x - middle.x) + u.y * (p.y - middle.y);
      return { x: middle.x + t * u.x, y: middle.y + t * u.y };
    };
    return { from: along(first), to: along(last), width };
  }

  /** Whether the points have gone away from where they now are again: a ring, not a touch. */
  private reaches(width: number): boolean {
    const { n, sum } = this;
    return (sum.xx + sum.yy) / n > width * width;
  }
}

function levelled(angle: number): number {
  const quarter = Math.PI / 2;
  const nearest = Math.round(angle / quarter) * quarter;
  return Math.abs(angle - nearest) < NEARLY_LEVEL ? nearest : angle;
}

/** Room around the writing, as a share of its height. */
const ROOM = 0.08;
/** How far a bar may grow or shrink to fit. */
const MOST = 4;
const LEAST = 0.4;

/**
 * The bar at the height and in the middle of the writing it covers, given as the polygons of each
 * stroke; as it was where it covers none.
 */
export function fitBar(bar: Bar, strokes: Iterable<readonly Polygon[]>): Bar {
  const length = Math.hypot(bar.to.x - bar.from.x, bar.to.y - bar.from.y);
  if (length === 0) return bar;
  const u = { x: (bar.to.x - bar.from.x) / length, y: (bar.to.y - bar.from.y) / length };
  let low = Infinity;
  let high = -Infinity;
  for (const polygons of strokes) {
    const reach = { low: Infinity, high: -Infinity, from: Infinity, to: -Infinity };
    for (const polygon of polygons) {
      for (let i = 0; i < polygon.length; i += 2) {
        const [dx, dy] = [polygon[i] - bar.from.x, polygon[i + 1] - bar.from.y];
        const along = u.x * dx + u.y * dy;
        const across = u.x * dy - u.y * dx;
        if (across < reach.low) reach.low = across;
        if (across > reach.high) reach.high = across;
        if (along < reach.from) reach.from = along;
        if (along > reach.to) reach.to = along;
      }
    }
    if (reach.to < 0 || reach.from > length) continue;
    // A stroke of the line above may hang into the bar: it counts when half of it is covered.
    const shared = Math.min(reach.high, bar.width / 2) - Math.max(reach.low, -bar.width / 2);
    if (shared < 0.5 * Math.min(reach.high - reach.low, bar.width)) continue;
    low = Math.min(low, reach.low);
    high = Math.max(high, reach.high);
  }
  const height = (high - low) * (1 + 2 * ROOM);
  if (!(height >= LEAST * bar.width && height <= MOST * bar.width)) return bar;
  const shift = (low + high) / 2;
  const moved = (p: Point): Point => ({ x: p.x - u.y * shift, y: p.y + u.x * shift });
  return { from: moved(bar.from), to: moved(bar.to), width: height };
}
