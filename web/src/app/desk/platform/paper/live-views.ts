import { Injectable } from '@angular/core';
import type { Piece } from '@stylet/core/ink';
import type { FillCommand } from '@stylet/core/paint';
import type { LiveInk, LiveLayer, LiveSurface } from './live-layer';

/** All places in which a page shows just now: what is drawn in one is seen in all. */
@Injectable()
export class LiveViews {
  private readonly layers = new Map<string, Set<LiveLayer>>();

  /** A page shows in a layer, until the returned function is called. */
  join(pageId: string, layer: LiveLayer): () => void {
    const layers = this.layers.get(pageId) ?? new Set();
    this.layers.set(pageId, layers.add(layer));
    return () => {
      layers.delete(layer);
      if (layers.size === 0) this.layers.delete(pageId);
    };
  }

  /** Where to draw what is drawn in one of a page's layers. */
  around(pageId: string, own: LiveLayer): LiveSurface {
    const others = [...(this.layers.get(pageId) ?? [])].filter((layer) => layer !== own);
    return others.length === 0 ? own : new SharedSurface(own, others);
  }
}

/**
 * Draws under the nib at once, and in the page's other views with the next frame: what nobody could
 * see yet need not be drawn there sample by sample.
 */
export class SharedSurface implements LiveSurface {
  private waiting: ((layer: LiveLayer) => void)[] = [];
  private tail: ((layer: LiveLayer) => void) | undefined;
  private frame = 0;

  constructor(
    private readonly own: LiveLayer,
    private readonly others: readonly LiveLayer[],
  ) {}

  settle(pieces: readonly Piece[], ink: LiveInk): void {
    this.own.settle(pieces, ink);
    if (pieces.length > 0) this.wait((layer) => layer.settle(pieces, ink));
  }

  showTail(pieces: readonly Piece[], ink: LiveInk): void {
    this.own.showTail(pieces, ink);
    this.tail = (layer) => layer.showTail(pieces, ink);
    this.schedule();
  }

  showWhole(commands: readonly FillCommand[]): void {
    this.own.showWhole(commands);
    this.waiting = [];
    this.tail = (layer) => layer.showWhole(commands);
    this.schedule();
  }

  clear(): void {
    this.own.clear();
    this.waiting = [];
    this.tail = (layer) => layer.clear();
    this.flush();
  }

  /** Draws what waits for the next frame now. */
  flush(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    for (const layer of this.others) {
      for (const draw of this.waiting) draw(layer);
      this.tail?.(layer);
    }
    this.waiting = [];
    this.tail = undefined;
  }

  private wait(draw: (layer: LiveLayer) => void): void {
    this.waiting.push(draw);
    this.schedule();
  }

  private schedule(): void {
    if (this.frame === 0) this.frame = requestAnimationFrame(() => this.flush());
  }
}
