import type { Effect } from '@stylet/core/document';
import { transform, type Matrix } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from '../gestures/gesture';

/** What a page does with a pen. */
export interface PenTarget {
  /** Whether pens and mice draw just now. */
  accepts(): boolean;
  /** From client coordinates to page space. */
  toPage(): Matrix;
  /** A press; `erases` when it is the pen's eraser end. */
  begin(erases: boolean): Gesture;
  /** The gesture has ended; empty when it changed nothing. */
  done(effects: Effect[]): void;
}

/** The bit of `buttons` that stands for a pen's eraser (W3C Pointer Events, table of buttons). */
const ERASER_BUTTON = 32;

/** Turns pointer events on an element into gestures: pens and mice draw, fingers never do. */
export class PenInput {
  private gesture: Gesture | undefined;
  private pointer = -1;
  private toPage: Matrix = [1, 0, 0, 1, 0, 0];

  constructor(
    private readonly element: HTMLElement,
    private readonly target: PenTarget,
  ) {
    element.addEventListener('pointerdown', this.down);
    element.addEventListener('pointermove', this.move);
    element.addEventListener('pointerup', this.up);
    element.addEventListener('pointercancel', this.up);
  }

  disconnect(): void {
    this.cancel();
    this.element.removeEventListener('pointerdown', this.down);
    this.element.removeEventListener('pointermove', this.move);
    this.element.removeEventListener('pointerup', this.up);
    this.element.removeEventListener('pointercancel', this.up);
  }

  private readonly down = (event: PointerEvent): void => {
    if (event.pointerType === 'touch' || this.gesture || !this.target.accepts()) return;
    const erases = (event.buttons & ERASER_BUTTON) !== 0;
    if (event.button !== 0 && !erases) return;
    if ((event.target as Element).closest('button, a')) return;
    event.preventDefault();
    this.element.setPointerCapture(event.pointerId);
    this.pointer = event.pointerId;
    // The page does not move while it is written on, so this holds until the pen is lifted.
    this.toPage = this.target.toPage();
    this.gesture = this.target.begin(erases);
    this.gesture.move([this.sampleOf(event)]);
  };

  private readonly move = (event: PointerEvent): void => {
    if (event.pointerId !== this.pointer || !this.gesture) return;
    const coalesced = event.getCoalescedEvents();
    const events = coalesced.length > 0 ? coalesced : [event];
    this.gesture.move(events.map((e) => this.sampleOf(e)));
  };

  /** Lifted, or taken away by the system: what was written stays written. */
  private readonly up = (event: PointerEvent): void => {
    if (event.pointerId !== this.pointer || !this.gesture) return;
    const { gesture } = this;
    this.forget();
    this.target.done(gesture.end());
  };

  private cancel(): void {
    this.gesture?.cancel();
    this.forget();
  }

  private forget(): void {
    this.gesture = undefined;
    this.pointer = -1;
  }

  private sampleOf(event: PointerEvent): Sample {
    const { x, y } = transform(this.toPage, { x: event.clientX, y: event.clientY });
    return {
      x,
      y,
      pressure: event.pressure,
      tiltX: event.tiltX,
      tiltY: event.tiltY,
      time: event.timeStamp,
    };
  }
}
