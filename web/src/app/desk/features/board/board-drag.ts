import { signal } from '@angular/core';
import type { Point } from '@stylet/core/geometry';

/** How far a pointer goes before it drags, in CSS pixels. */
const SLOP = 6;
/** How long a finger rests on a page to pick it up, in ms. */
const REST = 380;
/** Near the upper and lower edge the board scrolls along: how near, and how far a frame at most. */
const NEAR = 56;
const FASTEST = 22;

/** What a drag on the board is doing; points in the scrolled grid, CSS pixels. */
export type BoardDragging =
  | { readonly kind: 'pages'; readonly at: Point; readonly screen: Point }
  | { readonly kind: 'band'; readonly from: Point; readonly at: Point; readonly adds: boolean };

export interface DragTarget {
  /** A tap on a page, or on no page. */
  tapped(tile: string | undefined, event: PointerEvent): void;
  /** Pages are about to be dragged by this one. */
  taken(tile: string): void;
  moved(dragging: BoardDragging): void;
  dropped(dragging: BoardDragging): void;
}

/** Picks pages up, draws a band round them, and scrolls along. Fingers scroll, and rest to pick up. */
export class BoardDrag {
  readonly dragging = signal<BoardDragging | undefined>(undefined);
  private press:
    | { readonly event: PointerEvent; readonly tile: string | undefined; readonly from: Point }
    | undefined;
  private last: PointerEvent | undefined;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private frame = 0;
  private readonly stop = new AbortController();

  constructor(
    private readonly scroller: HTMLElement,
    private readonly target: DragTarget,
  ) {
    const { signal: until } = this.stop;
    const on = <K extends keyof HTMLElementEventMap>(
      type: K,
      listener: (event: HTMLElementEventMap[K]) => void,
      passive = true,
    ): void => scroller.addEventListener(type, listener, { signal: until, passive });
    // A pen drags what a finger would scroll.
    on('pointerover', ({ pointerType }) => {
      scroller.style.touchAction = pointerType === 'pen' ? 'none' : 'pan-y';
    });
    on('pointerdown', (event) => this.down(event));
    on('pointermove', (event) => this.move(event));
    on('pointerup', (event) => this.up(event));
    on('pointercancel', () => this.cancel());
    on('scroll', () => this.again());
    on('contextmenu', (event) => event.preventDefault(), false);
    on('touchmove', (event) => this.dragging() && event.preventDefault(), false);
  }

  disconnect(): void {
    this.cancel();
    this.stop.abort();
  }

  /** Puts back what is being dragged. */
  cancel(): void {
    clearTimeout(this.resting);
    cancelAnimationFrame(this.frame);
    this.press = undefined;
    this.dragging.set(undefined);
  }

  private down(event: PointerEvent): void {
    if (event.button !== 0 || !event.isPrimary) return;
    const tile = (event.target as Element).closest<HTMLElement>('[data-tile]')?.dataset['tile'];
    // The scroll bar is no place for a band.
    if (!tile && event.offsetX >= this.scroller.clientWidth && event.target === this.scroller)
      return;
    this.press = { event, tile, from: this.pointIn(event) };
    this.last = event;
    if (event.pointerType === 'touch') {
      if (tile) this.resting = setTimeout(() => this.begin(), REST);
    } else {
      this.scroller.setPointerCapture(event.pointerId);
    }
  }

  private move(event: PointerEvent): void {
    const { press } = this;
    if (!press || event.pointerId !== press.event.pointerId) return;
    this.last = event;
    if (this.dragging()) {
      this.again();
      return;
    }
    const way = Math.hypot(
      event.clientX - press.event.clientX,
      event.clientY - press.event.clientY,
    );
    if (way < SLOP) return;
    if (event.pointerType === 'touch') this.cancel();
    else this.begin();
  }

  private begin(): void {
    const { press, last } = this;
    if (!press || !last) return;
    const { tile, from, event } = press;
    this.scroller.setPointerCapture(event.pointerId);
    if (tile) this.target.taken(tile);
    const at = this.pointIn(last);
    const screen = { x: last.clientX, y: last.clientY };
    this.dragging.set(
      tile
        ? { kind: 'pages', at, screen }
        : { kind: 'band', from, at, adds: event.ctrlKey || event.metaKey || event.shiftKey },
    );
    this.target.moved(this.dragging()!);
    this.frame = requestAnimationFrame(() => this.scrollAlong());
  }

  /** The pages pass under a pointer that rests. */
  private again(): void {
    const [dragging, last] = [this.dragging(), this.last];
    if (!dragging || !last) return;
    const at = this.pointIn(last);
    this.dragging.set(
      dragging.kind === 'pages'
        ? { kind: 'pages', at, screen: { x: last.clientX, y: last.clientY } }
        : { ...dragging, at },
    );
    this.target.moved(this.dragging()!);
  }

  private up(event: PointerEvent): void {
    const { press } = this;
    if (!press || event.pointerId !== press.event.pointerId) return;
    this.last = event;
    this.again();
    const dragging = this.dragging();
    this.cancel();
    if (dragging) this.target.dropped(dragging);
    else this.target.tapped(press.tile, event);
  }

  private scrollAlong(): void {
    const { last } = this;
    if (!this.dragging() || !last) return;
    const { top, bottom } = this.scroller.getBoundingClientRect();
    const over =
      Math.max(0, NEAR - (last.clientY - top)) - Math.max(0, NEAR - (bottom - last.clientY));
    if (over !== 0) this.scroller.scrollBy(0, -Math.max(-1, Math.min(1, over / NEAR)) * FASTEST);
    this.frame = requestAnimationFrame(() => this.scrollAlong());
  }

  private pointIn({ clientX, clientY }: PointerEvent): Point {
    const { left, top } = this.scroller.getBoundingClientRect();
    return { x: clientX - left, y: clientY - top + this.scroller.scrollTop };
  }
}
