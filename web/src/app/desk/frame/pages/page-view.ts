import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import { blendOf, noAnnotations, type PageAnnotations } from '@stylet/core/document';
import { inverse, transform, type Box, type Matrix, type Point } from '@stylet/core/geometry';
import type { Gesture } from '../../platform/input/gesture';
import { LongPress } from '../../platform/input/long-press';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { kitActions, kitFeature, type DeskMode } from '../../platform/kit/kit.reducer';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { DarkPages } from '../../platform/paper/dark-pages';
import { screenToPage, shownSize } from '../../platform/paper/page-geometry';
import { FingerDrawing } from '../../platform/input/finger-drawing';
import { PenPresence } from '../../platform/input/pen-presence';
import { PageMenu } from '../page-menu/page-menu';
import { Registered } from '../../platform/feature/registered';
import { ShownPart } from '../../platform/feature/shown-part';
import { PAGE_FACE, type PageFace } from '../../platform/paper/page-face';
import { nothingErased } from '../../platform/paper/remains';
import { SketchOverlay } from './sketch-overlay';
import type { GesturePage, Sketch } from '../../platform/input/gesture-page';
import { PageGestures } from './page-gestures';
import { PageDrawing } from './page-drawing';
import { PagePointer, type PointedPage } from './page-pointer';
import { PageReading } from './page-reading';
import { PageSource } from '../../platform/paper/page-source';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { PenInput, sampleFrom, type PenPart, type PenTarget } from '../../platform/input/pen-input';
import { Marking } from '../../platform/selection/marking';
import { TextSelection } from '../../platform/selection/text-selection';
import { UnbufferedInput } from '../../platform/input/unbuffered-input';
import { ViewState } from '../../platform/view/view-state';

/** One page: its bitmap, what lies under its words, what lies over them, and live ink on top. */
@Component({
  selector: 'stylet-page-view',
  imports: [ShownPart, SketchOverlay, UnbufferedInput],
  providers: [{ provide: PAGE_FACE, useExisting: PageView }],
  templateUrl: './page-view.html',
  styleUrls: ['../../platform/paper/page-sheet.scss', './page-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.write]': "mode() === 'write'",
    '[class.dark]': 'dark.isOn()',
    '[style.cursor]': 'cursor()',
    '[class.holding]': 'standsOut()',
    '(click)': 'tapped($event)',
    '(dblclick)': 'tappedTwice($event)',
    '(contextmenu)': 'menuAsked($event)',
  },
})
export class PageView implements PageFace {
  readonly page = input.required<Page>();
  readonly index = input.required<number>();
  /** The zoom at which to draw sharp; the page may be shown stretched meanwhile. */
  readonly zoom = input.required<number>();
  /** What shows of the page, as shares of its width and height. */
  readonly visible = input.required<Box>();
  /** Distance from the middle of the view, in halves of its height: from 1 on it does not show. */
  readonly urgency = input.required<() => number>();
  readonly annotations = input<PageAnnotations>(noAnnotations);

  // Read where they are kept: a key, or a stroke, and the stroke after it may come within one frame.
  private readonly store = inject(Store);
  private readonly kept = this.store.selectSignal(documentFeature.selectAnnotations);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly slot = this.store.selectSignal(kitFeature.selectActiveSlot);
  protected readonly isPicking = this.store.selectSignal(kitFeature.selectIsPicking);
  protected readonly dark = inject(DarkPages);
  protected readonly selection = inject(TextSelection);
  private readonly view = inject(ViewState);
  private readonly source = inject(PageSource);
  private readonly gestures = inject(PageGestures);
  private readonly pages = inject(PagesOnScreen);
  private readonly menu = inject(PageMenu);
  private readonly editing = inject(Editing);
  private readonly registered = inject(Registered);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly paperCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('paper');
  private readonly underCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('under');
  private readonly overCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('over');
  private readonly liftBox = viewChild.required<ElementRef<HTMLElement>>('lift');
  private readonly liveBox = viewChild.required<ElementRef<HTMLElement>>('live');

  private readonly marking = inject(Marking);
  private readonly reading = new PageReading(this.source, this.selection, this.marking, this.page);
  /** What a gesture shows of itself. */
  protected readonly sketch = signal<Sketch | undefined>(undefined);
  private readonly allOnPages = this.registered.made('onPages', 'shows');
  /** What lies on this page. */
  private readonly hereOnPage = computed(() => {
    const here = this.allOnPages
      .filter(({ shows }) => shows(this.page()))
      .map(({ entry }) => entry);
    return here.some(({ hidesSelection }) => hidesSelection)
      ? here.filter(({ isSelection }) => !isSelection)
      : here;
  });
  protected readonly beneath = computed(() => this.hereOnPage().filter((one) => one.isBeneath));
  protected readonly above = computed(() => this.hereOnPage().filter((one) => !one.isBeneath));
  protected readonly standsOut = computed(() => this.hereOnPage().some((entry) => entry.standsOut));
  protected readonly cursor = computed(() =>
    this.mode() === 'write' && !this.isPicking() ? this.gestures.cursor() : undefined,
  );
  private readonly ring = viewChild.required<ElementRef<HTMLElement>>('ring');
  private readonly pointer = new PagePointer({
    host: this.host,
    ring: () => this.ring().nativeElement,
    frame: () => this.frame().nativeElement,
    paper: () => this.paperCanvas().nativeElement,
    under: () => this.underCanvas().nativeElement,
    over: () => this.overCanvas().nativeElement,
    shows: () => this.pointed(),
  });

  /** Whether what the slot writes lies under the words. */
  protected readonly isUnder = computed(() => blendOf(this.slot()) === 'multiply');
  readonly scale = computed(() => this.zoom() * PIXELS_PER_POINT);
  private readonly drawing = new PageDrawing({
    page: this.page,
    zoom: this.zoom,
    visible: this.visible,
    urgency: () => this.urgency()(),
    annotations: this.annotations,
    host: this.host,
    elements: () => ({
      frame: this.frame().nativeElement,
      paper: this.paperCanvas().nativeElement,
      under: this.underCanvas().nativeElement,
      over: this.overCanvas().nativeElement,
      live: this.liveBox().nativeElement,
      lift: this.liftBox().nativeElement,
    }),
  });
  protected readonly place = this.drawing.place;

  constructor() {
    const target: PenTarget = {
      accepts: (event) => this.accepts(event),
      toPage: () => this.screenToPage(),
      begin: (part, at, adds) => this.beginGesture(part, at, adds),
      done: (effects) => {
        if (effects.length > 0) this.editing.change(effects);
        else this.drawing.live.clear();
        this.drawing.remains.set(nothingErased);
        this.gestures.ended();
      },
      hover: (x, y) => {
        this.pages.pointer = { x, y };
        this.pointer.show(x, y);
      },
      leave: () => this.pointer.hide(),
    };
    const pen = new PenInput(this.host, target, inject(FingerDrawing));
    const fingers = inject(FingerDrawing);
    const longPress = new LongPress(this.host, inject(PenPresence), {
      waits: ({ pointerId }) => !fingers.isDrawing(pointerId),
      begin: ({ x, y }) => {
        const at = this.toPage(x, y);
        // Some things on the page have a meaning of their own for that.
        if (document.elementFromPoint(x, y)?.closest('[data-long-press]')) return undefined;
        const selecting = this.mode() === 'read' ? this.reading.selectAt(at, true) : undefined;
        if (!selecting) this.menu.open(this.page(), { x, y });
        return selecting;
      },
      sampleOf: (event) => sampleFrom(event, this.screenToPage()),
    });
    inject(DestroyRef).onDestroy(() => {
      const left = pen.disconnect();
      // A view that is being taken away changes nothing itself.
      if (left.length > 0) queueMicrotask(() => this.editing.change(left));
      longPress.disconnect();
      this.drawing.release();
    });
    afterRenderEffect(() => {
      const [mode, tool] = [this.mode(), this.tool()];
      // It may depend on the slot.
      this.slot();
      untracked(() => this.readPage(mode, tool));
    });
  }

  /** The text is read where a tool may need it, and to be selected. */
  private readPage(mode: DeskMode, tool: string): void {
    if (mode === 'read' || this.gestures.readsText(tool)) void this.reading.read();
  }

  protected tapped({ clientX, clientY }: MouseEvent): void {
    if (this.isPicking())
      this.store.dispatch(
        kitActions.colorPicked({ color: this.pointer.colorAt(clientX, clientY) }),
      );
    else if (this.mode() === 'read') {
      const at = this.toPage(clientX, clientY);
      this.reading.takeMark(at);
      this.registered.tapped(this.page(), at);
    }
  }

  /** The right button; a pen's barrel button has its own meaning, and a finger is waited for by `LongPress`. */
  protected menuAsked(event: MouseEvent): void {
    // A link shows its own card.
    if (event.defaultPrevented) return;
    event.preventDefault();
    const { pointerType } = event as PointerEvent;
    if (pointerType !== 'pen' && pointerType !== 'touch')
      this.menu.open(this.page(), { x: event.clientX, y: event.clientY });
  }

  protected tappedTwice({ clientX, clientY }: MouseEvent): void {
    if (this.mode() === 'read') this.reading.takeWord(this.toPage(clientX, clientY));
  }

  /** In Write everywhere; in Read on text, which is then selected. */
  private accepts({ pointerType, clientX, clientY }: PointerEvent): boolean {
    if (this.view.isSpaceHeld()) return false;
    if (this.mode() === 'write') return true;
    // There fingers move the pages, and rest on a word to select it.
    return pointerType !== 'touch' && this.reading.isText(this.toPage(clientX, clientY));
  }

  private beginGesture(part: PenPart, at: Point, adds: boolean): Gesture | undefined {
    if (this.isPicking()) return undefined;
    if (this.mode() === 'read') return this.reading.selectAt(at, false);
    const action = this.gestures.actionOf(part);
    if (action === 'undo') this.editing.undo();
    if (action === 'undo' || action === 'none') return undefined;
    this.readPage(this.mode(), action);
    return this.gestures.begin(action, at, adds, this.target());
  }

  private target(): GesturePage {
    const { width } = this.host.getBoundingClientRect();
    return {
      page: this.page(),
      index: this.index(),
      annotations: this.kept()[this.page().id] ?? noAnnotations,
      live: this.drawing.live,
      pointsPerPixel: shownSize(this.page()).width / width,
      lines: () => this.reading.lines,
      linesRead: () => this.reading.linesRead(),
      show: (remains) => this.drawing.remains.set(remains),
      sketch: (sketch) => this.sketch.set(sketch),
      openMenu: (at) => {
        const { x, y } = transform(inverse(this.screenToPage()), at);
        this.menu.open(this.page(), { x, y });
      },
    };
  }

  /** What shows at the pointer. */
  private pointed(): ReturnType<PointedPage['shows']> {
    if (this.mode() !== 'write') return undefined;
    if (this.isPicking()) return 'color';
    const { width } = this.host.getBoundingClientRect();
    const ring = this.gestures.ring(shownSize(this.page()).width / width);
    return ring === undefined ? undefined : { eraser: ring };
  }

  /** From client coordinates to page space, as the page lies on the screen now. */
  private screenToPage(): Matrix {
    return screenToPage(this.page(), this.host.getBoundingClientRect());
  }

  readonly toPage = (x: number, y: number): Point => transform(this.screenToPage(), { x, y });
}
