import type { Point } from '@stylet/core/geometry';
import { contactOf, isPalm, isTouch } from './contact';
import type { FingerDrawing } from './finger-drawing';
import type { PenPresence } from './pen-presence';

/** What fingers (and, where it may, the mouse) do to the view. */
export interface ViewTarget {
  /** Whether mouse and pen drag the pages instead of writing. */
  dragsPages(): boolean;
  panBy(dx: number, dy: number): void;
  /** Enlarges by `factor` about a point in client coordinates. */
  zoomBy(factor: number, about: Point): void;
}

/** Speed (px/ms) lost per ms while the pages glide on, and the speed at which they stop. */
const FRICTION = 0.0035;
const STANDSTILL = 0.02;

/** How far a finger goes before it pans, in CSS pixels: one that rests does not move the page. */
const SLOP = 5;

/**
 * One finger pans and glides on, two pinch about the point between them. While a pen writes, fingers
 * do nothing; palms never do.
 */
export class TouchGestures {
  private readonly points = new Map<number, Point>();
  private velocity = { x: 0, y: 0 };
  private lastTime = 0;
  private isMoving = false;
  private frame = 0;

  constructor(
    private readonly element: HTMLElement,
    private readonly target: ViewTarget,
    private readonly pen: PenPresence,
    private readonly fingers: FingerDrawing,
  ) {
    element.addEventListener('pointerdown', this.down);
    element.addEventListener('pointermove', this.move);
    element.addEventListener('pointerup', this.up);
    element.addEventListener('pointercancel', this.up);
  }

  disconnect(): void {
    cancelAnimationFrame(this.frame);
    this.element.removeEventListener('pointerdown', this.down);
    this.element.removeEventListener('pointermove', this.move);
    this.element.removeEventListener('pointerup', this.up);
    this.element.removeEventListener('pointercancel', this.up);
  }

  private readonly down = (event: PointerEvent): void => {
    if (event.pointerType === 'pen' && !this.target.dragsPages()) this.stop();
    // What is pressed on has taken it for itself.
    if (event.defaultPrevented || this.fingers.isDrawing(event.pointerId)) return;
    if (isTouch(event) && (this.pen.isDown() || isPalm(contactOf(event)))) return;
    const pans =
      event.pointerType === 'touch' ||
      (event.pointerType === 'mouse' && event.button === 1) ||
      (event.button === 0 && this.target.dragsPages());
    if (!pans) return;
    // A link under a resting finger must still get its click.
    if (event.pointerType !== 'touch' && (event.target as Element).closest('button')) return;
    const other = isTouch(event) ? this.fingers.yields(event.timeStamp) : 'none';
    if (other === 'busy') return;
    cancelAnimationFrame(this.frame);
    this.velocity = { x: 0, y: 0 };
    this.lastTime = event.timeStamp;
    if (other !== 'none') this.join(other.id, other.at);
    this.join(event.pointerId, { x: event.clientX, y: event.clientY });
    this.isMoving = this.points.size > 1 || !isTouch(event);
  };

  private join(id: number, at: Point): void {
    this.points.set(id, at);
    this.fingers.joined(id);
  }

  /** A pen came down: the hand that holds it moves nothing. */
  private stop(): void {
    cancelAnimationFrame(this.frame);
    for (const id of this.points.keys()) this.fingers.left(id);
    this.points.clear();
  }

  private readonly move = (event: PointerEvent): void => {
    const before = this.points.get(event.pointerId);
    if (!before || this.points.size > 2) return;
    if (isTouch(event) && isPalm(contactOf(event))) {
      this.points.delete(event.pointerId);
      this.fingers.left(event.pointerId);
      return;
    }
    const now = { x: event.clientX, y: event.clientY };
    const other = [...this.points].find(([id]) => id !== event.pointerId)?.[1];
    this.points.set(event.pointerId, now);
    if (other) {
      this.pinch(before, now, other);
      return;
    }
    const dx = now.x - before.x;
    const dy = now.y - before.y;
    if (!this.isMoving && Math.hypot(dx, dy) < SLOP) {
      this.points.set(event.pointerId, before);
      return;
    }
    this.isMoving = true;
    this.target.panBy(-dx, -dy);
    const elapsed = Math.max(1, event.timeStamp - this.lastTime);
    this.lastTime = event.timeStamp;
    this.velocity = {
      x: 0.6 * this.velocity.x - (0.4 * dx) / elapsed,
      y: 0.6 * this.velocity.y - (0.4 * dy) / elapsed,
    };
  };

  private readonly up = (event: PointerEvent): void => {
    if (!this.points.delete(event.pointerId)) return;
    this.fingers.left(event.pointerId);
    const rested = event.timeStamp - this.lastTime > 80;
    if (this.points.size === 0 && event.pointerType === 'touch' && !rested) this.glide();
    else this.velocity = { x: 0, y: 0 };
  };

  private pinch(before: Point, now: Point, other: Point): void {
    const spread = (p: Point): number => Math.max(1, Math.hypot(p.x - other.x, p.y - other.y));
    const middle = (p: Point): Point => ({ x: (p.x + other.x) / 2, y: (p.y + other.y) / 2 });
    const from = middle(before);
    const to = middle(now);
    this.target.panBy(from.x - to.x, from.y - to.y);
    this.target.zoomBy(spread(now) / spread(before), to);
    this.velocity = { x: 0, y: 0 };
  }

  private glide(): void {
    let last = performance.now();
    const step = (time: number): void => {
      const elapsed = Math.min(50, time - last);
      last = time;
      const keep = Math.exp(-FRICTION * elapsed);
      this.velocity = { x: this.velocity.x * keep, y: this.velocity.y * keep };
      if (Math.hypot(this.velocity.x, this.velocity.y) < STANDSTILL) return;
      this.target.panBy(this.velocity.x * elapsed, this.velocity.y * elapsed);
      this.frame = requestAnimationFrame(step);
    };
    this.frame = requestAnimationFrame(step);
  }
}
