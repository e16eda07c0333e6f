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
  viewChild,
} from '@angular/core';
import { MatIconModule } from '@angular/material/icon';
import type { Page } from '@stylet/core/api';
import { noAnnotations, type PageAnnotations } from '@stylet/core/document';
import { Cancelled } from '../../../../workers/worker-client';
import { shownSize } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { AnnotationPainting } from '../../platform/paper/annotation-painting';
import { BoardPictures } from './board-pictures';

/** A page on the board: its picture, with what is on it, its label, and marks of what there is. */
@Component({
  selector: 'stylet-board-tile',
  imports: [MatIconModule],
  template: `
    <div class="box" [style.width.px]="room().width" [style.height.px]="room().height">
      <canvas #canvas [style.width.px]="size().width" [style.height.px]="size().height"></canvas>
    </div>
    <div class="caption">
      <span class="label">{{ page().label }}</span>
      @if (isBookmarked()) {
        <mat-icon class="bookmark" svgIcon="bookmark" />
      }
      @if (hasKeywords()) {
        <mat-icon svgIcon="keyword" />
      }
      @if (isAnnotated()) {
        <mat-icon svgIcon="ink" />
      }
    </div>
  `,
  styleUrl: './board-tile.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.drawn]': 'isDrawn()' },
})
export class BoardTile {
  readonly page = input.required<Page>();
  readonly annotations = input<PageAnnotations>(noAnnotations);
  readonly isAnnotated = input(false);
  readonly isBookmarked = input(false);
  readonly hasKeywords = input(false);
  /** What the picture may take up, in CSS pixels. */
  readonly room = input.required<{ readonly width: number; readonly height: number }>();
  /** How far from the middle of the board, as pages are drawn: the nearest first. */
  readonly urgency = input.required<() => number>();

  private readonly pictures = inject(BoardPictures);
  private readonly painting = inject(AnnotationPainting);
  private readonly source = inject(PageSource);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly size = computed(() => {
    const [{ width, height }, room] = [shownSize(this.page()), this.room()];
    const scale = Math.min(room.width / width, room.height / height);
    // It stands in the middle, at a whole pixel.
    const beside = Math.round((room.width - width * scale) / 2);
    return { width: room.width - 2 * beside, height: Math.round(height * scale) };
  });
  private drawing: AbortController | undefined;
  private isBlank = true;
  /** Whether the page shows as it is wanted, and not just from far off. */
  protected readonly isDrawn = signal(false);
  /** The page that the tile showed last. */
  private before: string | undefined;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    afterRenderEffect(() => {
      const [page, annotations, { width }] = [this.page(), this.annotations(), this.size()];
      this.drawing?.abort();
      if (this.before && page.id !== this.before) this.clear();
      this.before = page.id;
      const drawing = (this.drawing = new AbortController());
      void this.draw(page, annotations, Math.round(width * devicePixelRatio), drawing.signal);
    });
    inject(DestroyRef).onDestroy(() => this.drawing?.abort());
  }

  /** The tile is another page's now. */
  private clear(): void {
    const canvas = this.canvas().nativeElement;
    canvas.width = canvas.height = 1;
    this.isBlank = true;
    this.isDrawn.set(false);
    if (document.activeElement === this.host)
      this.host.closest<HTMLElement>('[role=listbox]')?.focus({ preventScroll: true });
  }

  private async draw(
    page: Page,
    annotations: PageAnnotations,
    width: number,
    signal: AbortSignal,
  ): Promise<void> {
    const urgency = (): number => this.urgency()();
    const picture = this.pictures.get(page, width, annotations, urgency, signal);
    if (this.isBlank) void this.showMiniature(page, annotations, signal);
    try {
      const drawn = await picture;
      if (signal.aborted) return;
      this.show(drawn, page, annotations);
      this.isDrawn.set(true);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** How the page looks from far off, until it is drawn. */
  private async showMiniature(
    page: Page,
    annotations: PageAnnotations,
    signal: AbortSignal,
  ): Promise<void> {
    const miniature = await this.source.miniatures.of(page);
    if (miniature && this.isBlank && !signal.aborted) this.show(miniature, page, annotations);
  }

  private show(
    picture: ImageBitmap | HTMLCanvasElement,
    page: Page,
    annotations: PageAnnotations,
  ): void {
    this.isBlank = false;
    const canvas = this.canvas().nativeElement;
    const { width, height } = picture;
    canvas.width = width;
    canvas.height = height;
    const context = canvas.getContext('2d')!;
    context.drawImage(picture, 0, 0);
    const region = { x: 0, y: 0, width, height };
    const scale = width / shownSize(page).width;
    this.painting.paint(context, page, annotations, { ...region, scale });
  }
}
