import { Injectable } from '@angular/core';

/** A pen that has been up for so long, in ms, rests: the next stroke of a word begins sooner. */
const REST = 250;
/** What waits for it waits no longer than this, in ms. */
const LONGEST = 2000;

/** Tells when nobody is writing just now, for what would take the processor from the ink. */
@Injectable({ providedIn: 'root' })
export class PenRest {
  private readonly down = new Set<number>();
  private lastUp = -Infinity;

  constructor() {
    const passive = { capture: true, passive: true };
    addEventListener('pointerdown', ({ pointerId }) => this.down.add(pointerId), passive);
    const up = ({ pointerId }: PointerEvent): void => {
      this.down.delete(pointerId);
      this.lastUp = performance.now();
    };
    addEventListener('pointerup', up, passive);
    addEventListener('pointercancel', up, passive);
  }

  /** Settles when nothing has pressed on the screen for a moment, or after two seconds. */
  async comes(): Promise<void> {
    const until = performance.now() + LONGEST;
    for (;;) {
      const now = performance.now();
      const left = this.down.size > 0 ? REST : this.lastUp + REST - now;
      const wait = Math.min(left, until - now);
      if (wait <= 0) return;
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
}
