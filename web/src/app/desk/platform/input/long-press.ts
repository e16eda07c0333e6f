import type { Gesture } from './gesture';
import type { Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { contactOf, isTouch } from './contact';
import type { PenPresence } from './pen-presence';

/** How long a finger rests before it means the text under it, in ms, and how far it may stray. */
const RESTS = 450;
/** How long it rests on before it means more than that. */
const RESTS_ON = 800;
const STRAYS = 10;
/** A contact that is wider, in CSS pixels, is a hand that rests and means nothing. Common practice, no source. */
const FINGER = 44;

export interface LongPressTarget {
  /** Whether a finger that rests means something else than what it does already. */
  waits(event: PointerEvent): boolean;
  /** What a finger that rests begins, or undefined for nothing. */
  begin(at: Point): Gesture | undefined;
  sampleOf(event: PointerEvent): Sample;
}

/** A finger that rests on the page and may then move on. Others go on to pan and pinch. */
export class LongPress {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private gesture: Gesture | undefined;
  private down: PointerEvent | undefined;

  constructor(
    private readonly element: HTMLElement,
    private readonly pen: PenPresence,
    private readonly target: LongPressTarget,
  ) {
    element.addEventListener('pointerdown', this.pressed);
    element.addEventListener('pointermove', this.moved);
    element.addEventListener('pointerup', this.lifted);
    element.addEventListener('pointercancel', this.lifted);
  }

  disconnect(): void {
    clearTimeout(this.timer);
    this.element.removeEventListener('pointerdown', this.pressed);
    this.element.removeEventListener('pointermove', this.moved);
    this.element.removeEventListener('pointerup', this.lifted);
    this.element.removeEventListener('pointercancel', this.lifted);
  }

  private readonly pressed = (event: PointerEvent): void => {
    clearTimeout(this.timer);
    // A second finger is a pinch.
    const isFirst = isTouch(event) && event.isPrimary && contactOf(event) < FINGER;
    this.down = isFirst ? event : undefined;
    if (isFirst) this.timer = setTimeout(() => this.begin(event), RESTS);
  };

  private begin(event: PointerEvent): void {
    // A hand that rests while a pen writes means nothing, and a finger that draws draws.
    if (this.pen.isNear(performance.now()) || !this.target.waits(event)) return;
    this.gesture = this.target.begin({ x: event.clientX, y: event.clientY });
    if (!this.gesture) return;
    // Panning lets go of the finger.
    const { pointerId, pointerType } = event;
    const release = { pointerId, pointerType, bubbles: true };
    this.down = undefined;
    this.element.dispatchEvent(new PointerEvent('pointercancel', release));
    this.element.setPointerCapture(pointerId);
    this.down = event;
    this.gesture.move([this.target.sampleOf(event)], []);
    this.restOn();
  }

  private restOn(): void {
    this.timer = setTimeout(() => {
      this.gesture?.rested?.();
      this.restOn();
    }, RESTS_ON);
  }

  private readonly moved = (event: PointerEvent): void => {
    if (event.pointerId !== this.down?.pointerId) return;
    const way = Math.hypot(event.clientX - this.down.clientX, event.clientY - this.down.clientY);
    if (way > STRAYS) clearTimeout(this.timer);
    this.gesture?.move([this.target.sampleOf(event)], []);
  };

  private readonly lifted = (event: PointerEvent): void => {
    if (event.pointerId !== this.down?.pointerId) return;
    clearTimeout(this.timer);
    this.gesture?.end();
    this.gesture = this.down = undefined;
  };
}
