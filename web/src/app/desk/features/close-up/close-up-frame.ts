import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import { Grip, type Drag } from '../../platform/input/grip';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { ViewState } from '../../platform/view/view-state';
import { CloseUp } from './close-up';

type Part = 'frame' | 'width' | 'left' | 'right';

/** What a key moves by, in points. */
const STEP = 4;

/** The frame on the page that the close-up shows, and the margins its lines keep to. */
@Component({
  selector: 'stylet-close-up-frame',
  imports: [Grip, MatIconModule],
  templateUrl: './close-up-frame.html',
  styleUrl: './close-up-frame.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CloseUpFrame {
  private readonly view = inject(ViewState);
  /** CSS pixels to a point of the page. */
  protected readonly scale = computed(() => this.view.zoom() * PIXELS_PER_POINT);
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

  protected drag(part: Part, { dx, dy }: Drag): void {
    const scale = this.scale();
    this.move(part, dx / scale, dy / scale);
  }

  protected step(part: Part, { x, y }: { x: number; y: number }): void {
    this.move(part, STEP * x, STEP * y);
  }

  private move(part: Part, dx: number, dy: number): void {
    const { frame } = this.closeUp.place()!;
    const margins = this.closeUp.margins();
    switch (part) {
      case 'frame':
        return this.closeUp.moveBy(dx, dy);
      case 'width':
        return this.closeUp.widen(Math.max(20, frame.x1 - frame.x0 + dx));
      case 'left':
      case 'right':
        return this.closeUp.setMargin(part, margins[part] + dx);
    }
  }
}
