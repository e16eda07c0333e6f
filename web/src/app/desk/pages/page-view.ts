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
import {
  noAnnotations,
  orderAbove,
  inPaintingOrder,
  paintingOrder,
  type Annotation,
  type Effect,
  type PageAnnotations,
} from '@stylet/core/document';
import {
  inverse,
  pageView,
  transform,
  transformBox,
  unite,
  type Box,
  type Matrix,
} from '@stylet/core/geometry';
import { liesUnder } from '@stylet/core/paint';
import type { Line } from '@stylet/core/text';
import { Cancelled } from '../../../workers/pdf-client';
import type { PageLink } from '../../../workers/protocol';
import { Author } from '../../settings/author';
import { EraseGesture, nothingErased, type Remains } from '../gestures/erase-gesture';
import type { Gesture } from '../gestures/gesture';
import { HighlightGesture } from '../gestures/highlight-gesture';
import { InkGesture } from '../gestures/ink-gesture';
import type { Eraser, KitSlot, PenAction, PenButtons } from '@stylet/core/api';
import type { DeskMode, Tool } from '../kit/kit.reducer';
import { CanvasSurface, boundsOfAnnotation } from './canvas-surface';
import { LiveLayer } from './live-layer';
import { PIXELS_PER_POINT } from './layout';
import { PageSource } from './page-source';
import { PenInput, type PenPart } from './pen-input';
import { pictureOf, release } from './picture-store';
import { chooseWindow, type PageWindow } from './window';

/** One page: its picture, what lies under its words, what lies over them, and live ink on top. */
@Component({
  selector: 'stylet-page-view',
  templateUrl: './page-view.html',
  styleUrl: './page-view.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class.write]': "mode() === 'write'",
    '[class.erasing]': "mode() === 'write' && tool() === 'eraser'",
  },
})
export class PageView {
  readonly page = input.required<Page>();
  readonly index = input.required<number>();
  /** The zoom at which to draw sharp; the page may be shown stretched meanwhile. */
  readonly zoom = input.required<number>();
  /** What shows of the page, as shares of its width and height. */
  readonly visible = input.required<Box>();
  /** Distance from the middle of the view, in pages: nearer ones are drawn first. */
  readonly urgency = input.required<() => number>();
  readonly annotations = input<PageAnnotations>(noAnnotations);
  readonly mode = input.required<DeskMode>();
  readonly tool = input.required<Tool>();
  readonly slot = input.required<KitSlot>();
  readonly eraser = input.required<Eraser>();
  readonly buttons = input.required<PenButtons>();
  /** The eraser was used: it may spring back. */
  readonly erased = output();
  readonly undone = output();
  readonly changed = output<Effect[]>();
  readonly followed = output<PageLink>();

  private readonly source = inject(PageSource);
  private readonly author = inject(Author);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly frame = viewChild.required<ElementRef<HTMLElement>>('frame');
  private readonly underCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('under');
  private readonly overCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('over');
  private readonly settledCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('settled');
  private readonly tailCanvas = viewChild.required<ElementRef<HTMLCanvasElement>>('tail');

  private under!: CanvasSurface;
  private over!: CanvasSurface;
  private live!: LiveLayer;
  private drawn: readonly Annotation[] = [];
  private lines: readonly Line[] | undefined;
  private rendering: AbortController | undefined;
  /** What an eraser has touched but not yet removed, and what it leaves. */
  private readonly remains = signal<Remains>(nothingErased);
  private readonly ring = viewChild.required<ElementRef<HTMLElement>>('ring');

  protected readonly links = signal<readonly PageLink[]>([]);
  private picture: HTMLCanvasElement | undefined;
  private isWhole = false;
  private present: PageWindow | undefined;
  private readonly wanted = computed<PageWindow>(() => {
    const { width, height, rotation } = this.page();
    const scale = this.zoom() * PIXELS_PER_POINT * devicePixelRatio;
    const [w, h] = rotation % 180 === 0 ? [width, height] : [height, width];
    const shares = this.visible();
    const visible = {
      x0: shares.x0 * w * scale,
      y0: shares.y0 * h * scale,
      x1: shares.x1 * w * scale,
      y1: shares.y1 * h * scale,
    };
    this.present = chooseWindow(scale, w * scale, h * scale, visible, this.present);
    return this.present;
  });
  /** Object numbers of marks that are drawn from the file. */
  private readonly marks = computed(
    () =>
      Object.values(this.annotations())
        .flatMap((a) =>
          a.kind === 'foreign' && !this.remains().gone.has(a.id) ? [a.origin.object] : [],
        )
        .sort((a, b) => a - b),
    { equal: (a, b) => a.join() === b.join() },
  );
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
    const pen = new PenInput(this.host, {
      accepts: () => this.mode() === 'write',
      toPage: () => this.screenToPage(),
      begin: (part) => this.beginGesture(part),
      done: (effects) => {
        if (effects.length > 0) this.changed.emit(effects);
        else this.live.clear();
        this.remains.set(nothingErased);
        if (this.tool() === 'eraser') this.erased.emit();
      },
      hover: (x, y) => this.showRing(x, y),
      leave: () => this.ring().nativeElement.classList.remove('shown'),
    });
    inject(DestroyRef).onDestroy(() => {
      pen.disconnect();
      this.leave();
    });
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
      const [annotations, remains] = [this.annotations(), this.remains()];
      untracked(() => this.showAnnotations(annotations, remains));
    });
    afterRenderEffect(() => {
      const [mode, slot, tool] = [this.mode(), this.slot(), this.tool()];
      untracked(() => void this.readPage(mode, slot, tool));
    });
  }

  protected linkPlace({ box }: PageLink): Record<string, string> {
    const { width, height, rotation } = this.page();
    const shown = transformBox(pageView(width, height, rotation, 1), box);
    const [w, h] = rotation % 180 === 0 ? [width, height] : [height, width];
    return {
      left: `${(100 * shown.x0) / w}%`,
      top: `${(100 * shown.y0) / h}%`,
      width: `${(100 * (shown.x1 - shown.x0)) / w}%`,
      height: `${(100 * (shown.y1 - shown.y0)) / h}%`,
    };
  }

  protected linkName({ target }: PageLink): string {
    return target.kind === 'address' ? target.url : `To page ${target.page + 1}`;
  }

  private resizeLayers(window: PageWindow): void {
    const matrix = this.toCanvas(window);
    this.under ??= new CanvasSurface(this.underCanvas().nativeElement);
    this.over ??= new CanvasSurface(this.overCanvas().nativeElement);
    this.live ??= new LiveLayer(
      this.settledCanvas().nativeElement,
      this.tailCanvas().nativeElement,
    );
    for (const surface of [this.under, this.over, this.live])
      surface.resize(window.width, window.height, matrix);
    this.drawn = [];
    this.showAnnotations(this.annotations(), this.remains());
  }

  /** Shows what is at hand at once, stretched, and the sharp picture when it is drawn. */
  private async drawPicture(window: PageWindow, marks: readonly number[]): Promise<void> {
    this.rendering?.abort();
    const rendering = (this.rendering = new AbortController());
    if (!this.picture) {
      const kept = this.source.pictures.take(this.index());
      if (kept) this.hang(kept, undefined);
    }
    const { x, y, width, height, scale } = window;
    const params = { page: this.index(), scale, region: { x, y, width, height }, marks };
    try {
      const urgency = (): number => this.urgency()();
      const bitmap = await this.source.client.ask('render', params, urgency, rendering.signal);
      if (rendering.signal.aborted) {
        bitmap.close();
        return;
      }
      this.hang(pictureOf(bitmap), window);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** Puts a picture where the page is, in place of the one before. */
  private hang(picture: HTMLCanvasElement, window: PageWindow | undefined): void {
    const share = (part: number, whole: number): string => `${(100 * part) / whole}%`;
    Object.assign(
      picture.style,
      window
        ? {
            left: share(window.x, window.pageWidth),
            top: share(window.y, window.pageHeight),
            width: share(window.width, window.pageWidth),
            height: share(window.height, window.pageHeight),
          }
        : { left: '0', top: '0', width: '100%', height: '100%' },
    );
    this.frame().nativeElement.replaceChildren(picture);
    release(this.picture);
    this.picture = picture;
    this.isWhole =
      !window || (window.width === window.pageWidth && window.height === window.pageHeight);
  }

  /** A page that goes out of sight leaves its picture behind for when it comes back. */
  private leave(): void {
    this.rendering?.abort();
    if (this.picture && this.isWhole) this.source.pictures.put(this.index(), this.picture);
    else release(this.picture);
    for (const { nativeElement } of [
      this.underCanvas(),
      this.overCanvas(),
      this.settledCanvas(),
      this.tailCanvas(),
    ])
      release(nativeElement);
  }

  /** Brings the layers from what was drawn to what is there now, with as little drawing as it takes. */
  private showAnnotations(annotations: PageAnnotations, { gone, left }: Remains): void {
    if (!this.over) return;
    const all = paintingOrder(annotations);
    const now =
      gone.size === 0 ? all : inPaintingOrder([...all.filter(({ id }) => !gone.has(id)), ...left]);
    const before = new Set(this.drawn);
    const after = new Set(now);
    const isOnTop = this.drawn.every((annotation, i) => now[i] === annotation);
    if (isOnTop) {
      this.drawOn(now.slice(this.drawn.length));
    } else {
      const changed = [
        ...this.drawn.filter((a) => !after.has(a)),
        ...now.filter((a) => !before.has(a)),
      ];
      const region = changed
        .flatMap((annotation) => boundsOfAnnotation(annotation) ?? [])
        .reduce<Box | undefined>((whole, box) => (whole ? unite(whole, box) : box), undefined);
      if (region) {
        this.under.redraw(region, now.filter(liesUnder));
        this.over.redraw(
          region,
          now.filter((a) => !liesUnder(a)),
        );
      }
    }
    this.drawn = now;
    this.live.clear();
  }

  private drawOn(added: readonly Annotation[]): void {
    this.under.draw(added.filter(liesUnder));
    this.over.draw(added.filter((annotation) => !liesUnder(annotation)));
  }

  /** Reads the text when a highlighter may need it, and the links when they are live. */
  private async readPage(mode: DeskMode, slot: KitSlot, tool: Tool): Promise<void> {
    const wantsText = mode === 'write' && tool === 'pen' && slot.instrument === 'highlighter';
    try {
      if (wantsText) this.lines = await this.source.linesOf(this.index());
      this.links.set(mode === 'read' ? await this.source.linksOf(this.index()) : []);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  private beginGesture(part: PenPart): Gesture | undefined {
    const action: PenAction = part === 'tip' ? this.tool() : this.buttons()[part];
    if (action === 'undo') this.undone.emit();
    if (action === 'undo' || action === 'none') return undefined;
    const annotations = paintingOrder(this.annotations());
    if (action === 'eraser') {
      const eraser = this.eraser();
      const show = (remains: Remains): void => this.remains.set(remains);
      return new EraseGesture(annotations, eraser, eraser.size / 2, show);
    }
    const slot = this.slot();
    const placement = {
      pageId: this.page().id,
      order: orderAbove(annotations.at(-1)?.order),
      author: this.author.name(),
    };
    if (slot.instrument !== 'highlighter') return new InkGesture(slot, placement, this.live);
    void this.readPage(this.mode(), slot, this.tool());
    return new HighlightGesture(slot, placement, this.live, () => this.lines);
  }

  /** The eraser's area under the pointer; never too small to be seen. */
  private showRing(x: number, y: number): void {
    const ring = this.ring().nativeElement;
    const shows = this.mode() === 'write' && this.tool() === 'eraser';
    ring.classList.toggle('shown', shows);
    if (!shows) return;
    const rect = this.host.getBoundingClientRect();
    const size = Math.max(4, (this.eraser().size * rect.width) / this.shownWidth());
    ring.style.width = ring.style.height = `${size}px`;
    ring.style.transform = `translate(${x - rect.left - size / 2}px, ${y - rect.top - size / 2}px)`;
  }

  private shownWidth(): number {
    const { width, height, rotation } = this.page();
    return rotation % 180 === 0 ? width : height;
  }

  /** From client coordinates to page space, as the page lies on the screen now. */
  private screenToPage(): Matrix {
    const rect = this.host.getBoundingClientRect();
    const { width, height, rotation } = this.page();
    const view = pageView(width, height, rotation, rect.width / this.shownWidth());
    const [a, b, c, d, e, f] = inverse(view);
    const origin = transform([a, b, c, d, e, f], { x: -rect.left, y: -rect.top });
    return [a, b, c, d, origin.x, origin.y];
  }

  private toCanvas({ scale, x, y }: PageWindow): Matrix {
    const { width, height, rotation } = this.page();
    const [a, b, c, d, e, f] = pageView(width, height, rotation, scale);
    return [a, b, c, d, e - x, f - y];
  }
}
