import type { Effect } from '@stylet/core/document';
import { transform, type Matrix, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from './gesture';
import type { FingerDrawing } from './finger-drawing';
import { movementsIn, predictedIn } from '../view/movements';

/** What a page does with a pen. */
export interface PenTarget {
  /** Whether a press does something just now. */
  accepts(event: PointerEvent): boolean;
  /** From client coordinates to page space. */
  toPage(): Matrix;
  /**
   * A press with a part of the pen at a point in page space; undefined when that does something
   * else than begin a gesture. `adds`: with Shift, which adds to a selection.
   */
  begin(part: PenPart, at: Point, adds: boolean): Gesture | undefined;
  /** Where the pointer is over the page, drawing or not, in client coordinates. */
  hover(x: number, y: number, isPen: boolean): void;
  /** The pointer is no longer over the page. */
  leave(): void;
  /** The gesture has ended; empty when it changed nothing. */
  done(effects: Effect[]): void;
}

/** Which part of a pen touches the page, or is pressed while the tip does. */
export type PenPart = 'tip' | 'eraserEnd' | 'barrel';

/** Bits of `buttons` (W3C Pointer Events 3, “chorded button interactions”). */
const BARREL_BUTTON = 2;
const ERASER_BUTTON = 32;

/** How far ahead of the pen, in ms, its way is shown before it is there: a frame and a bit. */
const AHEAD = 20;

function partOf(event: PointerEvent): PenPart | undefined {
  if (event.pointerType === 'pen') {
    if (event.buttons & ERASER_BUTTON) return 'eraserEnd';
    if (event.buttons & BARREL_BUTTON) return 'barrel';
  }
  return event.button === 0 ? 'tip' : undefined;
}

/** Turns pointer events on an element into gestures: pens and mice draw, fingers if they are let. */
export class PenInput {
  private gesture: Gesture | undefined;
  private pointer = -1;
  private toPage: Matrix = [1, 0, 0, 1, 0, 0];
  /** Takes back what was shown ahead of a pen that has stopped. */
  private stopped: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly element: HTMLElement,
    private readonly target: PenTarget,
    private readonly fingers: FingerDrawing,
  ) {
    element.addEventListener('pointerdown', this.down);
    element.addEventListener('pointermove', this.move);
    element.addEventListener('pointerup', this.up);
    element.addEventListener('pointercancel', this.up);
    element.addEventListener('pointerleave', this.leave);
    element.addEventListener('contextmenu', this.menu);
  }

  /** Stops listening. A stroke that is being drawn ends here: what it comes to is returned, for the page may have been taken away. */
  disconnect(): Effect[] {
    const effects = this.gesture?.end() ?? [];
    this.forget();
    this.element.removeEventListener('pointerdown', this.down);
    this.element.removeEventListener('pointermove', this.move);
    this.element.removeEventListener('pointerup', this.up);
    this.element.removeEventListener('pointercancel', this.up);
    this.element.removeEventListener('pointerleave', this.leave);
    this.element.removeEventListener('contextmenu', this.menu);
    return effects;
  }

  private readonly down = (event: PointerEvent): void => {
    const isTouch = event.pointerType === 'touch';
    if (event.pointerType === 'pen') this.fingers.dismiss();
    if (this.gesture || (isTouch && !this.fingers.accepts(event))) return;
    const part = partOf(event);
    if (!part || (event.target as Element).closest('button, a')) return;
    if (!this.target.accepts(event)) return;
    event.preventDefault();
    this.element.setPointerCapture(event.pointerId);
    this.pointer = event.pointerId;
    // The page does not move while it is written on, so this holds until the pen is lifted.
    this.toPage = this.target.toPage();
    const sample = this.sampleOf(event);
    this.gesture = this.target.begin(part, sample, event.shiftKey);
    if (isTouch && this.gesture) this.take(event);
    this.gesture?.move([sample], []);
  };

  private readonly move = (event: PointerEvent): void => {
    if (event.pointerType !== 'touch')
      this.target.hover(event.clientX, event.clientY, event.pointerType === 'pen');
    if (event.pointerId !== this.pointer || !this.gesture) return;
    this.fingers.moved(event.pointerId, { x: event.clientX, y: event.clientY });
    const ahead = predictedIn(event, AHEAD);
    const samples = movementsIn(event).map((e) => this.sampleOf(e));
    this.gesture.move(
      samples,
      ahead.map((e) => this.sampleOf(e)),
    );
    clearTimeout(this.stopped);
    if (ahead.length > 0) this.stopped = setTimeout(() => this.gesture?.move([], []), 2 * AHEAD);
  };

  /** Lifted, or taken away by the system: what was written stays written. */
  private readonly up = (event: PointerEvent): void => {
    if (event.pointerId !== this.pointer || !this.gesture) return;
    const { gesture } = this;
    this.forget();
    // What was shown ahead is not written: the last frame is what stays.
    gesture.move([], []);
    this.target.done(gesture.end());
  };

  private readonly leave = (): void => this.target.leave();

  /** The barrel button is the pen's own; a mouse keeps its menu. */
  private readonly menu = (event: Event): void => {
    if ((event as PointerEvent).pointerType === 'pen') event.preventDefault();
  };

  /** A finger draws: it moves no pages, until a second one says that they both do. */
  private take(event: PointerEvent): void {
    const at = { x: event.clientX, y: event.clientY };
    this.fingers.begin({
      id: event.pointerId,
      began: event.timeStamp,
      from: at,
      at,
      cancel: () => this.cancel(),
    });
  }

  private cancel(): void {
    this.gesture?.cancel();
    this.forget();
  }

  private forget(): void {
    this.gesture = undefined;
    this.fingers.end(this.pointer);
    this.pointer = -1;
    clearTimeout(this.stopped);
  }

  private sampleOf(event: PointerEvent): Sample {
    return sampleFrom(event, this.toPage);
  }
}

/** A pointer event as a sample; `toPage` maps client coordinates to page space. */
export function sampleFrom(event: PointerEvent, toPage: Matrix): Sample {
  const { x, y } = transform(toPage, { x: event.clientX, y: event.clientY });
  return {
    x,
    y,
    pressure: event.pressure,
    tiltX: event.tiltX,
    tiltY: event.tiltY,
    time: event.timeStamp,
  };
}
