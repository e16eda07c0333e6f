import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterRenderEffect,
  computed,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import { blendOf, noAnnotations, type Effect, type PageAnnotations } from '@stylet/core/document';
import { inverse, transform, type Box, type Matrix, type Point } from '@stylet/core/geometry';
import type { PageLink } from '../../../../workers/protocol';
import { nothingErased, type Remains } from '../../features/eraser/erase-gesture';
import type { Gesture } from '../../platform/input/gesture';
import { LongPress } from '../../platform/input/long-press';
import type { KitSlot } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import { kitActions, kitFeature, type DeskMode, type Tool } from '../../platform/kit/kit.reducer';
import { sizeOnPage } from '../../platform/kit/on-screen';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { DarkPages } from '../../platform/paper/dark-pages';
import {
  pageToWindow,
  placeOnPage,
  screenToPage,
  shownSize,
  shownWay,
} from '../../platform/paper/page-geometry';
import { HitLayer } from '../../features/find/hit-layer';
import { FingerDrawing } from '../../platform/input/finger-drawing';
import { PenPresence } from '../../platform/input/pen-presence';
import { LinkLayer } from '../../features/links/link-layer';
import { PageLinks } from '../../features/links/page-links';
import { PageMenu } from '../page-menu/page-menu';
import { LiveViews } from '../../platform/paper/live-views';
import type { GesturePage } from '../../platform/input/gesture-page';
import { PageGestures } from './page-gestures';
import { PageLayers } from '../../platform/paper/page-layers';
import { PageLift } from './page-lift';
import { PageBitmap } from '../../platform/paper/page-bitmap';
import { PagePointer, type PointedPage } from './page-pointer';
import { PageReading } from './page-reading';
import { PageSource } from '../../platform/paper/page-source';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { PenInput, sampleFrom, type PenPart, type PenTarget } from '../../platform/input/pen-input';
import { PictureBitmaps } from '../../platform/pictures/picture-bitmaps';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { SelectedLayer } from '../selection/selected-layer';
import { CropLayer } from '../../features/crop/crop-layer';
import { Cropping } from '../../features/crop/cropping';
import { ReadAloud } from '../../features/read-aloud/read-aloud';
import { SpokenLayer } from '../../features/read-aloud/spoken-layer';
import { ReadingLine } from '../../features/reading-line/reading-line';
import { ReadingLineLayer } from '../../features/reading-line/reading-line-layer';
import { SnipBar } from '../../features/snip/snip-bar';
import { Snipping } from '../../features/snip/snipping';
import { Marking } from '../../platform/selection/marking';
import { SelectionLayer } from '../selection/selection-layer';
import { TextSelection } from '../../platform/selection/text-selection';
import { UnbufferedInput } from '../../platform/input/unbuffered-input';
import { ViewState } from '../../platform/view/view-state';
import type { PageWindow } from '../../platform/paper/page-window';
import { fileMarks, pageWindow } from '../../platform/paper/window';

/** One page: its bitmap, what lies under its words, what lies over them, and live ink on top. */
@Component({
  selector: 'stylet-page-view',
  imports: [
    CropLayer,
    HitLayer,
    LinkLayer,
    ReadingLineLayer,
    SelectedLayer,
    SelectionLayer,
    SnipBar,
    SpokenLayer,
    UnbufferedInput,
  ],
  templateUrl: './page-view.html',
  styleUrls: ['../../platform/paper/page-sheet.scss', './page-view.scss'],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.write]': "mode() === 'write'",
    '[class.dark]': 'dark.isOn()',
    '[class.gapping]': "mode() === 'write' && tool() === 'gap'",
    '[class.selecting]': "mode() === 'write' && tool() === 'lasso'",
    '[class.holding]': 'chosenHere() !== undefined || snip() !== undefined',
    '[class.placing]': "mode() === 'write' && tool() === 'picture'",
    '[class.erasing]': "mode() === 'write' && tool() === 'eraser' && !isPicking()",
    '(click)': 'tapped($event)',
    '(dblclick)': 'tappedTwice($event)',
    '(contextmenu)': 'menuAsked($event)',
  },
})
export class PageView {
  readonly page = input.required<Page>();
  readonly index = input.required<number>();
  /** The zoom at which to draw sharp; the page may be shown stretched meanwhile. */
  readonly zoom = input.required<number>();
  /** What shows of the page, as shares of its width and height. */
  readonly visible = input.required<Box>();
  /** Distance from the middle of the view, in halves of its height: from 1 on it does not show. */
  readonly urgency = input.required<() => number>();
  readonly annotations = input<PageAnnotations>(noAnnotations);
  readonly undone = output();
  readonly changed = output<Effect[]>();
  readonly followed = output<PageLink>();

  // Read where they are kept: a key, or a stroke, and the stroke after it may come within one frame.
  private readonly store = inject(Store);
  private readonly kept = this.store.selectSignal(documentFeature.selectAnnotations);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  protected readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly slot = this.store.selectSignal(kitFeature.selectActiveSlot);
  protected readonly isPicking = this.store.selectSignal(kitFeature.selectIsPicking);
  private readonly eraser = this.store.selectSignal(kitFeature.selectEraser);
  protected readonly dark = inject(DarkPages);
  protected readonly selection = inject(TextSelection);
  private readonly view = inject(ViewState);
  private readonly source = inject(PageSource);
  private readonly gestures = inject(PageGestures);
  private readonly views = inject(LiveViews);
  private readonly pictures = inject(PictureBitmaps);
  private readonly pages = inject(PagesOnScreen);
  protected readonly chosen = inject(AnnotationSelection);
  private readonly cropping = inject(Cropping);
  private readonly snipping = inject(Snipping);
  private readonly menu = inject(PageMenu);
  private readonly editing = inject(Editing);
  private readonly readingLine = inject(ReadingLine);
  private readonly readAloud = inject(ReadAloud);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly paperCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('paper');
  private readonly underCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('under');
  private readonly overCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('over');
  private readonly liveBox = viewChild.required<ElementRef<HTMLElement>>('live');

  private layers!: PageLayers;
  private bitmap!: PageBitmap;
  private readonly marking = inject(Marking);
  private readonly reading = new PageReading(this.source, this.selection, this.marking, this.page);
  /** Whether some of its words are selected. */
  protected readonly hasSelection = computed(() =>
    this.selection.parts().some(({ page }) => page.id === this.page().id),
  );
  protected readonly links = new PageLinks(
    this.page,
    this.view.pages,
    this.annotations,
    this.reading.links,
    this.mode,
  );
  /** What an eraser has touched but not yet removed, and what it leaves. */
  private readonly remains = signal<Remains>(nothingErased);
  /** The way of a lasso, and the area of a snip, as the page is shown. */
  protected readonly lasso = signal('');
  protected readonly area = signal<Record<string, string> | undefined>(undefined);
  protected readonly gap = signal<{ readonly from: number; readonly to: number } | undefined>(
    undefined,
  );
  protected readonly sheet = computed(() => shownSize(this.page()));
  /** What of this page is read aloud just now. */
  protected readonly spoken = computed(() => this.ifHere(this.readAloud.at()));
  protected readonly lineInReading = computed(() => this.ifHere(this.readingLine.at()));
  /** The picture of this page that is being cropped. */
  protected readonly cropped = computed(() => this.ifHere(this.cropping.picture()));
  /** The snip that was just taken from this page, and where it lies. */
  protected readonly snip = computed(() => {
    const snip = this.snipping.current();
    if (snip?.page.id !== this.page().id) return undefined;
    return { snip, place: placeOnPage(this.page(), snip.area.box) };
  });
  /** What shows instead of annotations that are being erased or changed. */
  private readonly instead = computed<Remains>(() => {
    const preview = this.chosen.pageId() === this.page().id ? this.chosen.preview() : undefined;
    const cropped = this.cropped() ? this.cropping.preview() : undefined;
    return cropped ?? preview ?? this.remains();
  });
  protected readonly chosenHere = computed(() =>
    this.chosen.pageId() === this.page().id ? this.chosen.ids() : undefined,
  );
  private readonly liftBox = viewChild.required<ElementRef<HTMLElement>>('lift');
  private readonly lift = new PageLift(
    this.host,
    () => this.liftBox().nativeElement,
    this.pictures,
  );
  private leaveViews: (() => void) | undefined;
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
  private present: PageWindow | undefined;
  private readonly wanted = computed<PageWindow>(() => {
    const ahead = this.source.windowAhead(this.page());
    this.present = pageWindow(this.page(), this.zoom(), this.visible(), this.present, ahead);
    return this.present;
  });
  private readonly marks = computed(
    () =>
      fileMarks(
        this.page(),
        Object.values(this.annotations()).filter(({ id }) => !this.instead().gone.has(id)),
      ),
    { equal: (a, b) => a?.join() === b?.join() },
  );
  protected readonly cssScale = computed(() => this.zoom() * PIXELS_PER_POINT);
  protected readonly place = computed(() => {
    const { x, y, width, height, pageWidth, pageHeight } = this.wanted();
    return {
      left: `${(100 * x) / pageWidth}%`,
      top: `${(100 * y) / pageHeight}%`,
      width: `${(100 * width) / pageWidth}%`,
      height: `${(100 * height) / pageHeight}%`,
    };
  });

  constructor() {
    const target: PenTarget = {
      accepts: (event) => this.accepts(event),
      toPage: () => this.screenToPage(),
      begin: (part, at, adds) => this.beginGesture(part, at, adds),
      done: (effects) => {
        if (effects.length > 0) this.changed.emit(effects);
        else this.layers.live.clear();
        this.remains.set(nothingErased);
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
        const at = this.pagePoint(x, y);
        // Links show where they lead.
        if (this.links.isAt(at)) return undefined;
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
      this.bitmap?.leave();
      this.leaveViews?.();
      this.lift.drop();
      this.layers?.release();
    });
    const lifted = this.chosen.lifted;
    // What is drawn depends on the signals named here and on nothing it happens to read.
    afterRenderEffect(() => {
      const window = this.wanted();
      untracked(() => this.resizeLayers(window));
    });
    afterRenderEffect(() => {
      const [window, marks] = [this.wanted(), this.marks()];
      untracked(() => void this.drawPicture(window, marks));
    });
    afterRenderEffect(() => {
      const isDark = this.dark.isOn();
      untracked(() => void this.bitmap.darken(isDark));
    });
    afterRenderEffect(() => {
      const [annotations, remains] = [this.annotations(), this.instead()];
      untracked(() => this.layers.show(annotations, remains));
    });
    const stop = this.pictures.onCome((digest) => this.layers?.refresh(digest));
    inject(DestroyRef).onDestroy(stop);
    afterRenderEffect(() => {
      const [window, ids, annotations] = [this.wanted(), this.chosenHere(), this.annotations()];
      untracked(() => this.lift.prepare(this.page(), annotations, ids, window, this.place()));
    });
    afterRenderEffect(() => {
      const [matrix, ids] = [lifted(), this.chosenHere()];
      const canvas = this.overCanvas().nativeElement;
      untracked(() => this.lift.show(ids ? matrix : undefined, this.page(), canvas));
    });
    afterRenderEffect(() => {
      const [mode, slot, tool] = [this.mode(), this.slot(), this.tool()];
      untracked(() => this.readPage(mode, slot, tool));
    });
  }

  protected readonly lowest = ({ from, to }: { from: number; to: number }): number =>
    Math.min(from, to);
  protected readonly highest = ({ from, to }: { from: number; to: number }): number =>
    Math.max(from, to);

  private resizeLayers(window: PageWindow): void {
    this.layers ??= new PageLayers(
      {
        paper: this.paperCanvas().nativeElement,
        under: this.underCanvas().nativeElement,
        over: this.overCanvas().nativeElement,
        live: this.liveBox().nativeElement,
      },
      this.pictures,
    );
    this.layers.resize(window.width, window.height, pageToWindow(this.page(), window));
    this.layers.show(this.annotations(), this.instead());
    this.leaveViews ??= this.views.join(this.page().id, this.layers.live);
  }

  private async drawPicture(
    window: PageWindow,
    marks: readonly number[] | undefined,
  ): Promise<void> {
    const frame = this.frame().nativeElement;
    this.bitmap ??= new PageBitmap(this.source, this.page, frame, () => this.urgency()());
    await this.bitmap.draw(window, marks);
  }

  /** The text is read when a highlighter may need it, the links when they are live. */
  private readPage(mode: DeskMode, slot: KitSlot, tool: Tool): void {
    const isHighlighting = tool === 'pen' && slot.instrument === 'highlighter';
    void this.reading.read(mode === 'read' || isHighlighting, mode === 'read');
  }

  protected tapped({ clientX, clientY }: MouseEvent): void {
    if (this.isPicking())
      this.store.dispatch(
        kitActions.colorPicked({ color: this.pointer.colorAt(clientX, clientY) }),
      );
    else if (this.mode() === 'read') {
      const at = this.pagePoint(clientX, clientY);
      this.reading.takeMark(at);
      if (this.readingLine.isOn()) void this.readingLine.take(this.page().id, at);
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
    if (this.mode() === 'read') this.reading.takeWord(this.pagePoint(clientX, clientY));
  }

  /** What is on a page, if it is on this one. */
  private ifHere<T extends { readonly pageId: string }>(at: T | undefined): T | undefined {
    return at?.pageId === this.page().id ? at : undefined;
  }

  /** In Write everywhere; in Read on text, which is then selected. */
  private accepts({ pointerType, clientX, clientY }: PointerEvent): boolean {
    if (this.view.isSpaceHeld()) return false;
    if (this.mode() === 'write') return true;
    // There fingers move the pages, and rest on a word to select it.
    return pointerType !== 'touch' && this.reading.isText(this.pagePoint(clientX, clientY));
  }

  private beginGesture(part: PenPart, at: Point, adds: boolean): Gesture | undefined {
    if (this.isPicking()) return undefined;
    if (this.mode() === 'read') return this.reading.selectAt(at, false);
    const action = this.gestures.actionOf(part);
    if (action === 'undo') this.undone.emit();
    if (action === 'undo' || action === 'none') return undefined;
    if (action === 'pen') this.readPage(this.mode(), this.slot(), this.tool());
    return this.gestures.begin(action, at, adds, this.target());
  }

  private target(): GesturePage {
    const { width } = this.host.getBoundingClientRect();
    return {
      page: this.page(),
      index: this.index(),
      annotations: this.kept()[this.page().id] ?? noAnnotations,
      live: this.layers.live,
      pointsPerPixel: shownSize(this.page()).width / width,
      lines: () => this.reading.lines,
      linesRead: () => this.reading.linesRead(),
      show: (remains) => this.remains.set(remains),
      showLasso: (way) => this.lasso.set(shownWay(this.page(), way)),
      showGap: (line) => this.gap.set(line),
      openMenu: (at) => {
        const { x, y } = transform(inverse(this.screenToPage()), at);
        this.menu.open(this.page(), { x, y });
      },
      showArea: (area) => this.area.set(area && placeOnPage(this.page(), area)),
    };
  }

  /** What shows at the pointer. */
  private pointed(): ReturnType<PointedPage['shows']> {
    if (this.mode() !== 'write') return undefined;
    if (this.isPicking()) return 'color';
    if (this.tool() !== 'eraser') return undefined;
    const { width } = this.host.getBoundingClientRect();
    const pointsPerPixel = shownSize(this.page()).width / width;
    const { size, onScreen } = this.eraser();
    return { eraser: sizeOnPage(size, onScreen, pointsPerPixel) / pointsPerPixel };
  }

  /** From client coordinates to page space, as the page lies on the screen now. */
  private screenToPage(): Matrix {
    return screenToPage(this.page(), this.host.getBoundingClientRect());
  }

  protected readonly pagePoint = (x: number, y: number): Point =>
    transform(this.screenToPage(), { x, y });
}
