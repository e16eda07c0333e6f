import { ChangeDetectionStrategy, Component, ElementRef, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import type { Markup, Quad } from '@stylet/core/document';
import { pageView, transform, type Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { Registered } from '../../platform/feature/registered';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { highlighterColors, inkColors } from '../../platform/kit/palettes';
import { PAGE_FACE } from '../../platform/paper/page-face';
import { shownSize } from '../../platform/paper/page-geometry';
import { ViewState } from '../../platform/view/view-state';
import { Marking } from '../../platform/selection/marking';
import { TextSelection } from '../../platform/selection/text-selection';

/** Half of the bar's greatest width and its height with some room, in CSS pixels. */
const HALF_BAR = 315;
const BAR = 60;

/** Selected text on its page: what is selected, its two ends to drag, and what can be done with it. */
@Component({
  selector: 'stylet-selected-words',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule],
  templateUrl: './selected-words.html',
  styleUrl: './selected-words.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SelectedWords {
  private readonly face = inject(PAGE_FACE);
  protected readonly page = this.face.page;
  protected readonly scale = this.face.scale;

  private readonly store = inject(Store);
  protected readonly selection = inject(TextSelection);
  protected readonly marking = inject(Marking);
  private readonly view = inject(ViewState);
  private readonly registered = inject(Registered);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly slots = this.store.selectSignal(kitFeature.selectSlots);

  protected readonly size = computed(() => shownSize(this.page()));
  /** What is selected on this page. */
  private readonly part = computed(() =>
    this.selection.parts().find(({ page }) => page.id === this.page().id),
  );
  private readonly quads = computed(() => {
    const { width, height, rotation } = this.page();
    const view = pageView(width, height, rotation, 1);
    return (this.part()?.quads ?? []).map((quad) => cornersOf(quad, view));
  });
  protected readonly outlines = computed(() =>
    this.quads().map(({ tl, tr, br, bl }) =>
      [tl, tr, br, bl].map(({ x, y }) => `${x},${y}`).join(' '),
    ),
  );
  protected readonly ends = computed(() => {
    const first = this.quads().at(0);
    const last = this.quads().at(-1);
    if (!first || !last) return [];
    const parts = this.selection.parts();
    const ends = [
      { end: 'first', name: 'Start of the selection', ...this.placeOf(first.bl), on: parts[0] },
      { end: 'last', name: 'End of the selection', ...this.placeOf(last.br), on: parts.at(-1) },
    ] as const;
    return ends.filter(({ on }) => on === this.part());
  });
  /** Above the selection, or below it where there is no room in view; over it where there is none either. */
  protected readonly barPlace = computed(() => {
    if (this.selection.selected()?.focus.page.id !== this.page().id) return undefined;
    const points = this.quads().flatMap(({ tl, tr, br, bl }) => [tl, tr, br, bl]);
    if (points.length === 0) return undefined;
    const xs = points.map(({ x }) => x);
    const ys = points.map(({ y }) => y);
    const middle = (Math.min(...xs) + Math.max(...xs)) / 2;
    const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
    const seen = this.seen();
    const isAbove =
      top - seen.top > BAR / this.scale() || seen.bottom - bottom < BAR / this.scale();
    const y = isAbove ? Math.max(top, seen.top + BAR / this.scale()) : bottom;
    const place = this.placeOf({ x: middle, y });
    const left = `clamp(${HALF_BAR}px, ${place.left}, 100% - ${HALF_BAR}px)`;
    return { left, top: place.top, isAbove };
  });
  /** From where to where the page is in view, in points from its top as it is shown. */
  private readonly seen = computed(() => {
    const { top, height } = this.view.part();
    const index = this.view.pages().findIndex(({ id }) => id === this.page().id);
    const from = (top - (this.view.layout().pages[index]?.top ?? 0)) / this.scale();
    return { top: Math.max(0, from), bottom: from + height / this.scale() };
  });
  protected readonly mark = computed(() => this.selection.selected()?.mark);
  protected readonly colors = computed(() => {
    const mark = this.mark();
    return mark && mark.kind !== 'highlight' ? inkColors : highlighterColors;
  });
  /** Lines take the colour of the first pen. */
  private readonly inkColor = computed(
    () =>
      this.slots().find(({ instrument }) => instrument !== 'highlighter')?.color ??
      inkColors[0].color,
  );

  private readonly further = this.registered.made('wordActions', 'action');
  protected readonly actions = computed(() =>
    this.further.filter(
      ({ action }) => (!this.mark() || action.isForMarks) && (action.isThere?.() ?? true),
    ),
  );

  protected perform({ run }: (typeof this.further)[number]['action']): void {
    const last = [...this.host.querySelectorAll('.shade polygon')].at(-1)!;
    run(last.getBoundingClientRect());
  }

  protected choose(color: string): void {
    if (this.mark()) this.marking.recolor(color);
    else this.marking.mark('highlight', color);
  }

  protected draw(kind: Markup['kind']): void {
    this.marking.mark(kind, this.inkColor());
  }

  /** An end is dragged, over other pages too: what shows here may change meanwhile, so that the window listens. */
  protected grab(event: PointerEvent, end: 'first' | 'last'): void {
    event.preventDefault();
    event.stopPropagation();
    const { pointerId } = event;
    this.selection.loosen(end);
    this.selection.isDragged.set(true);
    const stop = new AbortController();
    const { signal } = stop;
    const listen = (type: 'pointermove' | 'pointerup' | 'pointercancel', ends: boolean): void =>
      addEventListener(
        type,
        (next) => {
          if (next.pointerId !== pointerId) return;
          this.selection.extendAt(this.view.fromWindow({ x: next.clientX, y: next.clientY }));
          if (!ends) return;
          stop.abort();
          this.selection.isDragged.set(false);
          this.marking.settle();
        },
        { signal },
      );
    listen('pointermove', false);
    listen('pointerup', true);
    listen('pointercancel', true);
  }

  /** With the keyboard an end goes word by word. */
  protected async step(event: KeyboardEvent, end: 'first' | 'last'): Promise<void> {
    const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (step === 0 || event.altKey) return;
    event.preventDefault();
    this.selection.loosen(end);
    await this.selection.step(step);
    this.marking.settle();
  }

  private placeOf({ x, y }: Point): { left: string; top: string } {
    const { width, height } = this.size();
    return { left: `${(100 * x) / width}%`, top: `${(100 * y) / height}%` };
  }
}

interface Corners {
  readonly tl: Point;
  readonly tr: Point;
  readonly bl: Point;
  readonly br: Point;
}

function cornersOf(quad: Quad, view: Parameters<typeof transform>[0]): Corners {
  const at = (i: number): Point => transform(view, { x: quad[i], y: quad[i + 1] });
  return { tl: at(0), tr: at(2), bl: at(4), br: at(6) };
}
