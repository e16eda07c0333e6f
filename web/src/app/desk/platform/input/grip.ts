import { Directive, booleanAttribute, input, output } from '@angular/core';

/** How far a grip was dragged since last told, in CSS pixels. */
export interface Drag {
  readonly dx: number;
  readonly dy: number;
  readonly event: PointerEvent;
}

/** What arrow keys move a grip by, as directions. */
const ARROWS: Partial<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Something to take hold of and drag, by pen, finger, mouse or arrow keys. The page gets none of it. */
@Directive({
  selector: '[styletGrip]',
  host: {
    '(pointerdown)': 'take($event)',
    '(pointermove)': 'drag($event)',
    '(pointerup)': 'letGo($event)',
    '(pointercancel)': 'letGo($event)',
    '(keydown)': 'key($event)',
  },
})
export class Grip {
  readonly taken = output<PointerEvent>();
  readonly dragged = output<Drag>();
  readonly released = output<PointerEvent>();
  /** An arrow key: a direction, each part −1, 0 or 1. */
  readonly stepped = output<{ x: number; y: number }>();

  /** Whether arrow keys step; where they do not, they are the desk's. */
  readonly steps = input(true, { transform: booleanAttribute });

  private pointer: { readonly id: number; x: number; y: number } | undefined;

  protected take(event: PointerEvent): void {
    event.preventDefault();
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.pointer = { id: event.pointerId, x: event.clientX, y: event.clientY };
    this.taken.emit(event);
  }

  protected drag(event: PointerEvent): void {
    const { pointer } = this;
    if (event.pointerId !== pointer?.id) return;
    const [dx, dy] = [event.clientX - pointer.x, event.clientY - pointer.y];
    this.pointer = { id: pointer.id, x: event.clientX, y: event.clientY };
    this.dragged.emit({ dx, dy, event });
  }

  protected letGo(event: PointerEvent): void {
    if (event.pointerId !== this.pointer?.id) return;
    this.pointer = undefined;
    this.released.emit(event);
  }

  protected key(event: KeyboardEvent): void {
    const arrow = ARROWS[event.key];
    if (!arrow || event.altKey || !this.steps()) return;
    event.preventDefault();
    event.stopPropagation();
    this.stepped.emit({ x: arrow[0], y: arrow[1] });
  }
}
