import { Injectable } from '@angular/core';
import type { Piece } from '@stylet/core/ink';
import type { FillCommand } from '@stylet/core/paint';
import type { LiveInk, LiveCanvas, LiveSurface } from './live-canvas';

/** All places in which a page shows just now: what is drawn in one is seen in all. */
@Injectable()
export class LiveViews {
  private readonly surfaces = new Map<string, Set<LiveCanvas>>();

  /** A page shows in a surface, until the returned function is called. */
  join(pageId: string, surface: LiveCanvas): () => void {
    const surfaces = this.surfaces.get(pageId) ?? new Set();
    this.surfaces.set(pageId, surfaces.add(surface));
    return () => {
      surfaces.delete(surface);
      if (surfaces.size === 0) this.surfaces.delete(pageId);
    };
  }

  /** Where to draw what is drawn in one of a page's surfaces. */
  around(pageId: string, own: LiveCanvas): LiveSurface {
    const others = [...(this.surfaces.get(pageId) ?? [])].filter((surface) => surface !== own);
    return others.length === 0 ? own : new SharedSurface(own, others);
  }
}

/**
 * Draws under the nib at once, and in the page's other views with the next frame: what nobody could
 * see yet need not be drawn there sample by sample.
 */
export class SharedSurface implements LiveSurface {
  private waiting: ((surface: LiveCanvas) => void)[] = [];
  private tail: ((surface: LiveCanvas) => void) | undefined;
  private frame = 0;

  constructor(
    private readonly own: LiveCanvas,
    private readonly others: readonly LiveCanvas[],
  ) {}

  settle(pieces: readonly Piece[], ink: LiveInk): void {
    this.own.settle(pieces, ink);
    if (pieces.length > 0) this.wait((surface) => surface.settle(pieces, ink));
  }

  showTail(pieces: readonly Piece[], ink: LiveInk): void {
    this.own.showTail(pieces, ink);
    this.tail = (surface) => surface.showTail(pieces, ink);
    this.schedule();
  }

  showWhole(commands: readonly FillCommand[]): void {
    this.own.showWhole(commands);
    this.waiting = [];
    this.tail = (surface) => surface.showWhole(commands);
    this.schedule();
  }

  clear(): void {
    this.own.clear();
    this.waiting = [];
    this.tail = (surface) => surface.clear();
    this.flush();
  }

  /** Draws what waits for the next frame now. */
  flush(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    for (const surface of this.others) {
      for (const draw of this.waiting) draw(surface);
      this.tail?.(surface);
    }
    this.waiting = [];
    this.tail = undefined;
  }

  private wait(draw: (surface: LiveCanvas) => void): void {
    this.waiting.push(draw);
    this.schedule();
  }

  private schedule(): void {
    if (this.frame === 0) this.frame = requestAnimationFrame(() => this.flush());
  }
}
