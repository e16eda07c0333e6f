import { distance, type Point } from '@stylet/core/geometry';

/** How long a pen rests before it is held, in ms, and how far it may stray, in CSS pixels. */
const RESTS = 480;
const STRAYS = 5;

/** Tells when a pen that is down rests; again and again for as long as it does. */
export class Hold {
  private anchor: Point | undefined;
  private since = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** `pointsPerPixel`: points of the page to a CSS pixel, as it is shown now. */
  constructor(
    private readonly pointsPerPixel: number,
    private readonly held: () => void,
  ) {}

  /** The pen is at a point (page space). */
  at(point: Point): void {
    const isStill = this.anchor && distance(point, this.anchor) <= STRAYS * this.pointsPerPixel;
    if (isStill) return;
    this.anchor = point;
    this.since = performance.now();
    this.timer ??= setTimeout(() => this.look(), RESTS);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  /** One timer serves a whole stroke: setting one for each sample would cost more than drawing it. */
  private look(): void {
    const rest = this.since + RESTS - performance.now();
    if (rest > 1) {
      this.timer = setTimeout(() => this.look(), rest);
      return;
    }
    this.since = performance.now();
    this.timer = setTimeout(() => this.look(), RESTS);
    this.held();
  }
}
