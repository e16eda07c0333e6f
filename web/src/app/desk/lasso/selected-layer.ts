import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Page } from '@stylet/core/api';
import {
  inverse,
  pageView,
  transform,
  transformBox,
  unite,
  type Box,
  type Point,
} from '@stylet/core/geometry';
import { dragHandle, handlesOf, type Handle } from '@stylet/core/shapes';
import { boundsOfAnnotation } from '../pages/drawing';
import { shownSize } from '../pages/page-geometry';
import { AnnotationSelection } from './annotation-selection';

/** Half of the bar's width and its height with some room, in CSS pixels. */
const HALF_BAR = 110;
const BAR = 62;
/** What an arrow key moves a handle by, in points. */
const STEP = 1;

const NAMES: Record<Handle['kind'], string> = {
  corner: 'Corner',
  side: 'Side',
  centre: 'Middle',
};

/** What is selected on a page: its frame, a shape's handles, and what can be done with it. */
@Component({
  selector: 'stylet-selected-layer',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule],
  templateUrl: './selected-layer.html',
  styleUrl: './selected-layer.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SelectedLayer {
  readonly page = input.required<Page>();
  /** CSS pixels to a point of the page. */
  readonly scale = input.required<number>();
  /** Where a point of the window is on the page, in page space. */
  readonly toPage = input.required<(x: number, y: number) => Point>();

  protected readonly selection = inject(AnnotationSelection);
  private grabbed: Handle | undefined;

  protected readonly size = computed(() => shownSize(this.page()));
  private readonly view = computed(() => {
    const { width, height, rotation } = this.page();
    return pageView(width, height, rotation, 1);
  });
  /** What is selected, as the page shows it. */
  private readonly box = computed<Box | undefined>(() => {
    const dragged = this.selection.dragged();
    const shown = dragged ? [dragged] : this.selection.annotations();
    const boxes = shown.flatMap((a) =>
      a.kind === 'foreign' ? a.box : (boundsOfAnnotation(a) ?? []),
    );
    return boxes.length > 0 ? transformBox(this.view(), boxes.reduce(unite)) : undefined;
  });
  protected readonly frame = computed(() => {
    const box = this.box();
    if (!box) return undefined;
    const [a, b] = [this.placeOf({ x: box.x0, y: box.y0 }), this.placeOf({ x: box.x1, y: box.y1 })];
    return { left: a.left, top: a.top, right: b.right, bottom: b.bottom };
  });
  protected readonly handles = computed(() => {
    const shape = this.selection.dragged() ?? this.selection.shape();
    if (!shape) return [];
    return handlesOf(shape).map((handle) => ({
      handle,
      name: `${NAMES[handle.kind]} ${handle.index + 1}`,
      ...this.placeOf(transform(this.view(), handle.at)),
    }));
  });
  /** Above what is selected, or below it where there is no room. */
  protected readonly bar = computed(() => {
    const box = this.box();
    if (!box) return undefined;
    const isAbove = box.y0 * this.scale() > BAR;
    const { left, top } = this.placeOf({ x: (box.x0 + box.x1) / 2, y: isAbove ? box.y0 : box.y1 });
    return { left: `clamp(${HALF_BAR}px, ${left}, 100% - ${HALF_BAR}px)`, top, isAbove };
  });

  protected grab(event: PointerEvent, handle: Handle): void {
    event.preventDefault();
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    this.grabbed = handle;
  }

  protected drag(event: PointerEvent): void {
    const shape = this.selection.dragged() ?? this.selection.shape();
    if (!this.grabbed || !shape) return;
    const to = this.toPage()(event.clientX, event.clientY);
    this.selection.drag(dragHandle(shape, this.grabbed, to));
  }

  protected drop(): void {
    if (!this.grabbed) return;
    this.grabbed = undefined;
    this.selection.settle();
  }

  /** Arrow keys move a handle; what they come to is one step each. */
  protected step(event: KeyboardEvent, handle: Handle): void {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
      event.key
    ];
    const shape = this.selection.shape();
    if (!by || !shape || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    const shown = transform(this.view(), handle.at);
    const to = { x: shown.x + STEP * by[0], y: shown.y + STEP * by[1] };
    this.selection.drag(dragHandle(shape, handle, transform(inverse(this.view()), to)));
    this.selection.settle();
  }

  private placeOf({ x, y }: Point): Record<'left' | 'top' | 'right' | 'bottom', string> {
    const { width, height } = this.size();
    return {
      left: `${(100 * x) / width}%`,
      top: `${(100 * y) / height}%`,
      right: `${100 - (100 * x) / width}%`,
      bottom: `${100 - (100 * y) / height}%`,
    };
  }
}
