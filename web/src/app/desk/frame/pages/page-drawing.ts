import {
  DestroyRef,
  afterRenderEffect,
  computed,
  inject,
  signal,
  untracked,
  type Signal,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import { Registered } from '../../platform/feature/registered';
import { DarkPages } from '../../platform/paper/dark-pages';
import type { LiveCanvas } from '../../platform/paper/live-canvas';
import { LiveViews } from '../../platform/paper/live-views';
import { PageBitmap } from '../../platform/paper/page-bitmap';
import { pageToWindow } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { PageSurfaces, type SurfaceElements } from '../../platform/paper/page-surfaces';
import type { PageWindow } from '../../platform/paper/page-window';
import { nothingErased, type Remains } from '../../platform/paper/remains';
import { fileMarks, pageWindow } from '../../platform/paper/window';
import { PaintSources } from '../../platform/paper/paint-sources';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { PageLift } from './page-lift';

/** The page to draw, and what to draw it on. */
export interface DrawnPage {
  readonly page: Signal<Page>;
  readonly zoom: Signal<number>;
  readonly visible: Signal<Box>;
  readonly urgency: () => number;
  readonly annotations: Signal<PageAnnotations>;
  readonly host: HTMLElement;
  /** There once the page has been rendered. */
  elements(): SurfaceElements & Record<'frame' | 'lift', HTMLElement>;
}

/** Draws a page: its picture, its annotations, and what of them is being dragged. Made where things are injected. */
export class PageDrawing {
  private readonly source = inject(PageSource);
  private readonly sources = inject(PaintSources);
  private readonly chosen = inject(AnnotationSelection);
  private readonly registered = inject(Registered);
  private readonly views = inject(LiveViews);
  private surfaces!: PageSurfaces;
  private bitmap!: PageBitmap;
  private leaveViews: (() => void) | undefined;
  private readonly lift: PageLift;
  /** What an eraser has touched but not yet removed, and what it leaves. */
  readonly remains = signal<Remains>(nothingErased);

  /** What shows instead of annotations that are being erased or changed. */
  private readonly instead = computed<Remains>(() => {
    const { id } = this.drawn.page();
    const preview = this.chosen.pageId() === id ? this.chosen.preview() : undefined;
    return this.registered.insteadOn(id) ?? preview ?? this.remains();
  });
  private readonly chosenHere = computed(() =>
    this.chosen.pageId() === this.drawn.page().id ? this.chosen.ids() : undefined,
  );
  private present: PageWindow | undefined;
  private readonly wanted = computed<PageWindow>(() => {
    const { page, zoom, visible } = this.drawn;
    const ahead = this.source.windowAhead(page());
    this.present = pageWindow(page(), zoom(), visible(), this.present, ahead);
    return this.present;
  });
  private readonly marks = computed(
    () =>
      fileMarks(
        this.drawn.page(),
        Object.values(this.drawn.annotations()).filter(({ id }) => !this.instead().gone.has(id)),
      ),
    { equal: (a, b) => a?.join() === b?.join() },
  );
  /** Where on the page its canvases lie. */
  readonly place = computed(() => {
    const { x, y, width, height, pageWidth, pageHeight } = this.wanted();
    return {
      left: `${(100 * x) / pageWidth}%`,
      top: `${(100 * y) / pageHeight}%`,
      width: `${(100 * width) / pageWidth}%`,
      height: `${(100 * height) / pageHeight}%`,
    };
  });

  constructor(private readonly drawn: DrawnPage) {
    const { page, annotations, elements } = drawn;
    this.lift = new PageLift(drawn.host, () => elements().lift, this.sources);
    inject(DestroyRef).onDestroy(
      this.sources.onCome((isConcerned) => this.surfaces?.refresh(isConcerned)),
    );
    const dark = inject(DarkPages);
    const { lifted } = this.chosen;
    // What is drawn depends on the signals named here and on nothing it happens to read.
    afterRenderEffect(() => {
      const window = this.wanted();
      untracked(() => this.resize(window));
    });
    afterRenderEffect(() => {
      // Its file may have become another one.
      const [window, marks] = [this.wanted(), this.marks(), page().source];
      untracked(() => void this.drawPicture(window, marks));
    });
    afterRenderEffect(() => {
      const isDark = dark.isOn();
      untracked(() => void this.bitmap.darken(isDark));
    });
    afterRenderEffect(() => {
      const [all, remains] = [annotations(), this.instead()];
      untracked(() => this.surfaces.show(all, remains));
    });
    afterRenderEffect(() => {
      const [window, ids, all] = [this.wanted(), this.chosenHere(), annotations()];
      untracked(() => this.lift.prepare(page(), all, ids, window, this.place()));
    });
    afterRenderEffect(() => {
      const [matrix, ids] = [lifted(), this.chosenHere()];
      untracked(() => this.lift.show(ids ? matrix : undefined, page(), elements().over));
    });
  }

  /** Live ink on this page; there once it has been rendered. */
  get live(): LiveCanvas {
    return this.surfaces.live;
  }

  /** The page is being taken away. */
  release(): void {
    this.bitmap?.leave();
    this.leaveViews?.();
    this.lift.drop();
    this.surfaces?.release();
  }

  private resize(window: PageWindow): void {
    const page = this.drawn.page();
    this.surfaces ??= new PageSurfaces(this.drawn.elements(), this.sources);
    this.surfaces.resize(window.width, window.height, pageToWindow(page, window));
    this.surfaces.show(this.drawn.annotations(), this.instead());
    this.leaveViews ??= this.views.join(page.id, this.surfaces.live);
  }

  private async drawPicture(
    window: PageWindow,
    marks: readonly number[] | undefined,
  ): Promise<void> {
    const { page, urgency, elements } = this.drawn;
    this.bitmap ??= new PageBitmap(this.source, page, elements().frame, urgency);
    await this.bitmap.draw(window, marks);
  }
}
