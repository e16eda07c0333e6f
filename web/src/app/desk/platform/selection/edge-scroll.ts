import type { Point } from '@stylet/core/geometry';

/** How near to an edge of the view (CSS pixels) it scrolls along, and how far a frame at most. */
const NEAR = 40;
const FASTEST = 18;

/** Scrolls along while something is dragged to the edge of what scrolls, or over it. */
export class EdgeScroll {
  private readonly stop = new AbortController();
  private pointer: Point | undefined;
  private frame = 0;

  /** `scrolled` is told where the pointer is in the window after each step. */
  constructor(
    private readonly scroller: HTMLElement,
    private readonly scrolled: (pointer: Point) => void,
  ) {
    const { signal } = this.stop;
    document.addEventListener('pointermove', ({ clientX: x, clientY: y }) => this.moved({ x, y }), {
      signal,
      // What is dragged may keep its moves for itself.
      capture: true,
    });
  }

  disconnect(): void {
    this.stop.abort();
    cancelAnimationFrame(this.frame);
  }

  private moved(pointer: Point): void {
    this.pointer = pointer;
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => this.step());
  }

  private step(): void {
    const pointer = this.pointer!;
    const { left, right, top, bottom } = this.scroller.getBoundingClientRect();
    const [x, y] = [speed(pointer.x, left, right), speed(pointer.y, top, bottom)];
    const { scrollLeft, scrollTop } = this.scroller;
    if (x === 0 && y === 0) return;
    this.scroller.scrollBy(x, y);
    if (this.scroller.scrollLeft === scrollLeft && this.scroller.scrollTop === scrollTop) return;
    this.scrolled(pointer);
    this.frame = requestAnimationFrame(() => this.step());
  }
}

/** Pixels a frame: the further over the edge, the faster. */
function speed(at: number, from: number, to: number): number {
  const [before, after] = [from + NEAR - at, at - (to - NEAR)];
  const over = after > 0 ? after : before > 0 ? -before : 0;
  return Math.sign(over) * Math.min(FASTEST, Math.abs(over) / 3);
}
