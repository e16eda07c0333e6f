import type { Spine } from './spine';

/** Way in radii after which a line that comes near itself is crossing itself, not bending. */
const APART = 6;

/**
 * Finds where a wide line begins to cross itself: it is then drawn as several passes, each of which
 * darkens the one before. Discs are given in turn.
 */
export class Passes {
  /** The first disc of each pass but the first. */
  readonly starts: number[] = [];
  private readonly cells = new Map<string, number[]>();
  private readonly way: number[] = [];

  constructor(
    private readonly spine: Spine,
    private readonly radius: number,
  ) {}

  /** Looks at the discs up to `end`, which must be settled. */
  look(end: number): void {
    for (let i = this.way.length; i < end; i++) this.place(i);
  }

  private place(i: number): void {
    const { x, y } = this.spine;
    const step = i === 0 ? 0 : Math.hypot(x[i] - x[i - 1], y[i] - y[i - 1]);
    this.way.push(i === 0 ? 0 : this.way[i - 1] + step);
    if (this.crosses(i)) {
      this.starts.push(i);
      this.cells.clear();
    }
    const cell = this.cellOf(x[i], y[i]);
    const list = this.cells.get(cell);
    if (list) list.push(i);
    else this.cells.set(cell, [i]);
  }

  private crosses(i: number): boolean {
    const { x, y } = this.spine;
    const reach = 2 * this.radius;
    for (let dx = -1; dx <= 1; dx++) {
      for (let dy = -1; dy <= 1; dy++) {
        const near = this.cells.get(this.cellOf(x[i] + dx * reach, y[i] + dy * reach));
        for (const k of near ?? []) {
          if (this.way[i] - this.way[k] < APART * this.radius) continue;
          if (Math.hypot(x[i] - x[k], y[i] - y[k]) < reach) return true;
        }
      }
    }
    return false;
  }

  private cellOf(x: number, y: number): string {
    const size = 2 * this.radius;
    return `${Math.floor(x / size)} ${Math.floor(y / size)}`;
  }
}
