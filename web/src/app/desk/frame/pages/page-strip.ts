import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  viewChild,
  type AfterViewInit,
  type ElementRef,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import { noAnnotations } from '@stylet/core/document';
import type { Box, Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { wantPagesNear } from './wanted-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import type { OnStripEntry } from '../../platform/feature/parts';
import { Registered } from '../../platform/feature/registered';
import { ShownPart } from '../../platform/feature/shown-part';
import { FingerDrawing } from '../../platform/input/finger-drawing';
import { PenPresence } from '../../platform/input/pen-presence';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { EdgeScroll } from '../../platform/selection/edge-scroll';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { TextSelection } from '../../platform/selection/text-selection';
import { afterPaint } from '../../platform/paper/after-paint';
import { pageLookedAt, pagesIn, type Part, type Placed } from '../../platform/paper/layout';
import { PageSource } from '../../platform/paper/page-source';
import { PageView } from './page-view';
import { Passing } from '../../platform/view/passing';
import { PassingPage } from './passing-page';
import { TouchGestures } from '../../platform/input/touch-gestures';
import { ViewState } from '../../platform/view/view-state';
import { fileMarks, pageWindow } from '../../platform/paper/window';

/** Share of the view's height above and below it in which pages are kept ready. */
const READY = 0.6;
/** How long after a jump pages that do not show wait for the one that does, in ms. */
const LANDING = 300;

/** Views a second at which a page is gone in less time than two take to be drawn. */
const FAST = 20;

interface ShownPage {
  readonly index: number;
  readonly page: Page;
  readonly placed: Placed;
  readonly isPassing: boolean;
}

/** All pages in a column that scrolls; only those near the view exist. */
@Component({
  selector: 'stylet-page-strip',
  imports: [PageView, PassingPage, ShownPart],
  templateUrl: './page-strip.html',
  styleUrl: './page-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageStrip implements AfterViewInit {
  private readonly store = inject(Store);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly destroyed = inject(DestroyRef);
  private readonly source = inject(PageSource);
  protected readonly view = inject(ViewState);
  private readonly registered = inject(Registered);
  /** How far the pages are moved so that the one shown alone is in the middle, in CSS pixels. */
  protected readonly shift = computed(() => {
    const alone = this.view.alone();
    const placed = alone === undefined ? undefined : this.view.layout().pages[alone];
    if (!placed) return undefined;
    const { left, top, width, height } = this.view.part();
    const x = (width - placed.width) / 2 - (placed.left - left);
    const y = (height - placed.height) / 2 - (placed.top - top);
    return `translate(${x}px, ${y}px)`;
  });
  private readonly layers = this.registered.made('onStrip', 'shows');
  private readonly pen = inject(PenPresence);
  private readonly fingers = inject(FingerDrawing);
  private readonly selection = inject(TextSelection);
  private readonly chosen = inject(AnnotationSelection);
  private readonly scroller = viewChild.required<ElementRef<HTMLElement>>('scroller');
  private readonly strip = viewChild.required<ElementRef<HTMLElement>>('strip');

  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly mode = this.store.selectSignal(kitFeature.selectMode);

  /** After a jump, until the page is there: the pages beside it would hold it up. */
  private readonly isLanding = signal(false);
  private landing = 0;
  /** The zoom at which the page in view was asked for last. */
  private drawnAt = 0;
  protected readonly stripWidth = computed(() =>
    Math.max(this.view.size().width, this.view.layout().width),
  );
  private readonly passing = new Passing(this.source.client, FAST);
  private readonly near = computed(() => {
    const layout = this.view.layout();
    const { width, height } = this.view.size();
    if (layout.pages.length === 0 || height === 0 || !this.view.isPlaced()) return undefined;
    const length = layout.isAcross ? width : height;
    const ready = this.isLanding() ? 0 : READY * length;
    return { layout, pages: this.view.pages(), range: pagesIn(layout, this.view.part(), ready) };
  });
  /** The page that words are being selected from, or something dragged: it has the pointer, however far that has gone. */
  private readonly held = computed(() => {
    const anchor = this.selection.isDragged() ? this.selection.selected()?.anchor : undefined;
    const pageId = this.chosen.isDragged() ? this.chosen.pageId() : anchor?.page.id;
    const index = this.view.pages().findIndex(({ id }) => id === pageId);
    return index < 0 ? undefined : index;
  });
  /** The pages that exist. One that comes while pages pass is less than a page, unless it is written on. */
  protected readonly shown = linkedSignal({
    source: () => ({
      near: this.near(),
      passes: this.passing.isOn(),
      annotations: this.annotations(),
      held: this.held(),
    }),
    computation: (
      { near, passes, annotations, held },
      before?: { value: readonly ShownPage[] },
    ) => {
      if (!near) return [];
      const whole = new Set(before?.value.flatMap((item) => (item.isPassing ? [] : item.page.id)));
      const [first, last] = near.range;
      const indexes = Array.from({ length: last - first + 1 }, (_, i) => first + i);
      if (held !== undefined && (held < first || held > last)) indexes.push(held);
      return indexes.map((index): ShownPage => {
        const page = near.pages[index];
        const isPassing = passes && !whole.has(page.id) && annotations[page.id] === undefined;
        return { index, page, placed: near.layout.pages[index], isPassing };
      });
    },
  });

  constructor() {
    wantPagesNear(this.near);
    effect((onCleanup) => {
      if (!this.selection.isDragged()) return;
      const along = new EdgeScroll(this.scroller().nativeElement, (pointer) =>
        this.selection.extendAt(this.view.fromWindow(pointer)),
      );
      onCleanup(() => along.disconnect());
    });
    effect((onCleanup) => {
      if (!this.chosen.isDragged()) return;
      const along = new EdgeScroll(this.scroller().nativeElement, (pointer) =>
        this.chosen.dragTo(pointer),
      );
      onCleanup(() => along.disconnect());
    });
    effect(() => {
      const near = this.near();
      // What may come into view next is in no hurry while something is being drawn to be looked at.
      if (near && this.source.hasDrawn() && !this.isLanding())
        this.source.miniatures.prepare(near.pages, ...near.range);
    });
  }

  ngAfterViewInit(): void {
    const element = this.scroller().nativeElement;
    this.view.scrollTo = (left, top) => this.scrollTo(left, top);
    this.view.fromWindow = ({ x, y }) => {
      const { left, top } = element.getBoundingClientRect();
      const part = this.view.part();
      return { x: x - left + part.left, y: y - top + part.top };
    };
    const resized = new ResizeObserver(() => this.measure());
    resized.observe(element);
    this.measure();
    const target = {
      dragsPages: () => this.mode() === 'read' || this.view.isSpaceHeld(),
      panBy: (dx: number, dy: number) => element.scrollBy(dx, dy),
      zoomBy: (factor: number, about: Point) => this.zoomBy(factor, about),
    };
    const gestures = new TouchGestures(element, target, this.pen, this.fingers);
    const stopListening = this.registered.listen(element);
    const wheel = (event: WheelEvent): void => this.wheel(event);
    element.addEventListener('wheel', wheel, { passive: false });
    this.destroyed.onDestroy(() => {
      this.passing.stand();
      resized.disconnect();
      stopListening();
      gestures.disconnect();
      element.removeEventListener('wheel', wheel);
    });
  }

  protected scrolled(): void {
    const { scrollLeft, scrollTop } = this.scroller().nativeElement;
    this.view.left.set(scrollLeft);
    this.view.top.set(scrollTop);
    const { width, height } = this.view.size();
    const [at, length] = this.view.layout().isAcross ? [scrollLeft, width] : [scrollTop, height];
    this.passing.step(at, length, performance.now());
  }

  protected annotationsOf(pageId: string): PageAnnotations {
    return this.annotations()[pageId] ?? noAnnotations;
  }

  protected onStripAt({ page, index }: ShownPage): readonly OnStripEntry[] {
    return this.layers.filter(({ shows }) => shows(page, index)).map(({ entry }) => entry);
  }

  protected leftOf(placed: Placed): number {
    return this.view.inset() + placed.left;
  }

  /** What shows of a page, as shares of its size; a bit may lie outside 0–1. */
  protected visibleOf(placed: Placed, part = this.view.part()): Box {
    const { width, height } = part;
    const left = part.left - placed.left;
    const top = part.top - placed.top;
    return {
      x0: left / placed.width,
      y0: top / placed.height,
      x1: (left + width) / placed.width,
      y1: (top + height) / placed.height,
    };
  }

  /** Pages between this one and the middle of the view, asked when the next one is drawn. */
  protected readonly urgencyOf = (placed: Placed): (() => number) => {
    return () => {
      const { left, top, width, height } = this.view.part();
      const [from, length, start, size] = this.view.layout().isAcross
        ? [left, width, placed.left, placed.width]
        : [top, height, placed.top, placed.height];
      const middle = from + length / 2;
      return Math.max(0, start - middle, middle - start - size) / (length / 2);
    };
  };

  /** The strip's size is set at once, so that the position to scroll to exists already. */
  private scrollTo(left: number, top: number): void {
    this.drawAhead(this.view.partAt(left, top));
    const strip = this.strip().nativeElement;
    strip.style.width = `${this.stripWidth()}px`;
    strip.style.height = `${this.view.layout().height}px`;
    this.scroller().nativeElement.scrollTo(left, top);
    this.scrolled();
    this.redrawAhead();
    this.detector.detectChanges();
  }

  /** Has the page in view drawn at another zoom before the interface has followed. */
  private redrawAhead(): void {
    const zoom = this.view.restingZoom();
    if (zoom === this.drawnAt) return;
    this.drawnAt = zoom;
    const index = this.view.currentPage();
    const page = this.view.pages()[index];
    if (page && zoom === this.view.zoom())
      void this.askAhead(page, this.visibleOf(this.view.layout().pages[index]));
  }

  private askAhead(page: Page, shown: Box): Promise<void> {
    const ahead = this.source.windowAhead(page);
    const window = pageWindow(page, this.view.restingZoom(), shown, ahead);
    const marks = fileMarks(page, Object.values(this.annotationsOf(page.id)));
    return this.source.drawAhead(page, window, marks);
  }

  /** Has the page one will look at drawn before there is anything to show it on: that takes a while. */
  private drawAhead(part: Part): void {
    const layout = this.view.layout();
    const index = pageLookedAt(layout, part);
    const page = this.view.pages()[index];
    if (!page || this.shown().some((item) => item.index === index)) return;
    this.land(this.askAhead(page, this.visibleOf(layout.pages[index], part)));
  }

  private land(drawn: Promise<unknown>): void {
    const landing = ++this.landing;
    const landed = (): void => {
      if (landing === this.landing) this.isLanding.set(false);
    };
    this.isLanding.set(true);
    void drawn.then(() => afterPaint(landed));
    setTimeout(landed, LANDING);
  }

  private measure(): void {
    const { clientWidth, clientHeight, offsetWidth, offsetHeight } = this.scroller().nativeElement;
    this.view.resize(
      { width: clientWidth, height: clientHeight },
      { width: offsetWidth, height: offsetHeight },
    );
  }

  private zoomBy(factor: number, client: { x: number; y: number }): void {
    const rect = this.scroller().nativeElement.getBoundingClientRect();
    const about = { x: client.x - rect.left, y: client.y - rect.top };
    this.view.zoomTo(this.view.zoom() * factor, about);
  }

  private wheel(event: WheelEvent): void {
    const pixels = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? event.deltaY * 24 : event.deltaY;
    if (!event.ctrlKey && !event.metaKey) {
      this.wheelAcross(event, pixels);
      return;
    }
    event.preventDefault();
    this.zoomBy(Math.exp(-pixels / 300), { x: event.clientX, y: event.clientY });
  }

  /** Where pages lie across, a wheel that turns down goes on across, but on a page higher than the view. */
  private wheelAcross(event: WheelEvent, pixels: number): void {
    const element = this.scroller().nativeElement;
    const { isAcross, pages } = this.view.layout();
    const page = pages[this.view.currentPage()];
    if (!isAcross || !page || page.height > element.clientHeight) return;
    // Such a turn says itself that it goes across: the browser scrolls.
    if (event.shiftKey || event.deltaX !== 0) return;
    event.preventDefault();
    element.scrollLeft += pixels;
  }
}
