import { Injectable, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { kitFeature } from '../kit/kit.reducer';
import { contactOf, isPalm } from './contact';
import { PenPresence } from './pen-presence';

/** A second finger so soon, in ms, or before the first has gone so far (CSS pixels), makes a pinch. */
const SOON = 160;
const SHORT = 14;

/** A finger that draws, as those need it who might take it for a gesture. */
export interface DrawingFinger {
  readonly id: number;
  readonly began: number;
  readonly from: { readonly x: number; readonly y: number };
  at: { readonly x: number; readonly y: number };
  /** Takes back what it has drawn. */
  cancel(): void;
}

/** Decides whether a finger draws or moves the pages: it never does both. */
@Injectable()
export class FingerDrawing {
  private readonly pen = inject(PenPresence);
  private readonly hands = inject(Store).selectSignal(kitFeature.selectHands);
  private finger: DrawingFinger | undefined;
  /** Fingers on the pages that do not draw. */
  private readonly others = new Set<number>();

  /** Whether a finger that comes down may draw. */
  accepts(event: PointerEvent): boolean {
    return (
      this.hands()?.fingersDraw === true &&
      !isPalm(contactOf(event)) &&
      !this.pen.isNear(event.timeStamp) &&
      this.finger === undefined &&
      this.others.size === 0
    );
  }

  begin(finger: DrawingFinger): void {
    this.finger = finger;
  }

  isDrawing(id: number): boolean {
    return this.finger?.id === id;
  }

  moved(id: number, at: DrawingFinger['at']): void {
    if (this.finger?.id === id) this.finger.at = at;
  }

  end(id: number): void {
    if (this.finger?.id === id) this.finger = undefined;
  }

  /** A pen is there: what a hand has drawn just before was its own doing. */
  dismiss(): void {
    this.finger?.cancel();
    this.finger = undefined;
  }

  /** Another finger is on the pages, or has left them. */
  joined(id: number): void {
    this.others.add(id);
  }

  left(id: number): void {
    this.others.delete(id);
  }

  /**
   * A second finger comes down. `none`: no finger draws. `busy`: one does, and goes on. Otherwise
   * the stroke had hardly begun: it is taken back, and its finger now moves the pages.
   */
  yields(time: number): DrawingFinger | 'none' | 'busy' {
    const { finger } = this;
    if (!finger) return 'none';
    const way = Math.hypot(finger.at.x - finger.from.x, finger.at.y - finger.from.y);
    if (time - finger.began > SOON && way > SHORT) return 'busy';
    this.finger = undefined;
    finger.cancel();
    return finger;
  }
}
