import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { CloseUp } from './close-up';

type Part = 'frame' | 'width' | 'left' | 'right';

/** What a key moves by, in points. */
const STEP = 4;

/** The frame on the page that the close-up shows, and the margins its lines keep to. */
@Component({
  selector: 'stylet-close-up-frame',
  imports: [MatIconModule],
  templateUrl: './close-up-frame.html',
  styleUrl: './close-up-frame.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CloseUpFrame {
  /** CSS pixels to a point of the page. */
  readonly scale = input.required<number>();
  protected readonly closeUp = inject(CloseUp);

  protected readonly place = computed(() => {
    const { x0, y0, x1, y1 } = this.closeUp.place()!.frame;
    const scale = this.scale();
    return {
      left: `${x0 * scale}px`,
      top: `${y0 * scale}px`,
      width: `${(x1 - x0) * scale}px`,
      height: `${(y1 - y0) * scale}px`,
    };
  });
  protected readonly stakes = computed(() => {
    const { y0, y1 } = this.closeUp.place()!.frame;
    const { left, right } = this.closeUp.margins();
    const scale = this.scale();
    const common = { top: `${y0 * scale}px`, height: `${(y1 - y0) * scale}px` };
    return [
      { part: 'left', name: 'Left margin', left: `${left * scale}px`, ...common },
      { part: 'right', name: 'Right margin', left: `${right * scale}px`, ...common },
    ] as const;
  });

  private held: { part: Part; x: number; y: number } | undefined;

  protected grab(event: PointerEvent, part: Part): void {
    event.preventDefault();
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.held = { part, x: event.clientX, y: event.clientY };
  }

  protected drag(event: PointerEvent): void {
    if (!this.held) return;
    const { part, x, y } = this.held;
    this.held = { part, x: event.clientX, y: event.clientY };
    const scale = this.scale();
    this.move(part, (event.clientX - x) / scale, (event.clientY - y) / scale);
  }

  protected drop(): void {
    this.held = undefined;
  }

  protected key(event: KeyboardEvent, part: Part): void {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      event.key
    ];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    this.move(part, STEP * by[0], STEP * by[1]);
  }

  private move(part: Part, dx: number, dy: number): void {
    const { frame } = this.closeUp.place()!;
    const margins = this.closeUp.margins();
    switch (part) {
      case 'frame':
        return this.closeUp.moveBy(dx, dy);
      case 'width':
        return this.closeUp.widen(Math.max(20, frame.x1 - frame.x0 + dx));
      default:
        return this.closeUp.setMargin(part, margins[part] + dx);
    }
  }
}
