import { Injectable } from '@angular/core';

/** A pen was near so long after it was last seen, in ms: hands rest on while people think. */
const NEAR_FOR = 800;

/** Where the pen is: on the glass, near it, or away. */
@Injectable()
export class PenPresence {
  private lastSeen = -Infinity;
  private readonly pressed = new Set<number>();

  /** Whether a pen is writing just now. */
  isDown(): boolean {
    return this.pressed.size > 0;
  }

  /** Whether a pen is on the glass or was near it just before `time` (ms, as events have it). */
  isNear(time: number): boolean {
    return this.isDown() || time - this.lastSeen < NEAR_FOR;
  }

  /** Watches the window until the returned function is called. */
  watch(): () => void {
    const types = ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const;
    const see = (event: PointerEvent): void => this.see(event);
    // Captured: nothing that handles the event may hide the pen.
    for (const type of types) window.addEventListener(type, see, { capture: true });
    return () => {
      for (const type of types) window.removeEventListener(type, see, { capture: true });
    };
  }

  private see({ type, pointerType, pointerId, timeStamp }: PointerEvent): void {
    if (pointerType !== 'pen') return;
    this.lastSeen = timeStamp;
    if (type === 'pointerdown') this.pressed.add(pointerId);
    else if (type !== 'pointermove') this.pressed.delete(pointerId);
  }
}
