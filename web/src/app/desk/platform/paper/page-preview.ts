import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  viewChild,
} from '@angular/core';
import type { Page } from '@stylet/core/api';
import { noAnnotations } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { Cancelled } from '../../../../workers/worker-client';
import { shownSize } from './page-geometry';
import { PageSource } from './page-source';
import { UnreadPages } from '../document/unread-pages';
import { documentFeature } from '../document/document.reducer';
import { AnnotationPainting } from './annotation-painting';
import { fileMarks } from './window';

/** Width of a preview, in CSS pixels. */
const WIDTH = 150;
/** A pointer that passes by asks for nothing, in ms. */
const PASSES = 90;
/** Previews come after the pages in view. */
const URGENCY = 5;

/** A small picture of a page, with its label. */
@Component({
  selector: 'stylet-page-preview',
  template: `
    <div class="sheet">
      <canvas #canvas [style.width.px]="size().width" [style.height.px]="size().height"></canvas>
      @if (line(); as top) {
        <div class="line" [style.top]="top"></div>
      }
    </div>
    <strong>{{ page().label }}</strong>
    @if (heading(); as words) {
      <span>{{ words }}</span>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 2px;
      width: 150px;
    }
    .sheet {
      box-shadow: 0 0 0 1px var(--line);
      position: relative;
    }
    canvas {
      background: var(--paper);
      display: block;
      filter: var(--dark, none);
    }
    .line {
      border-top: 2px solid var(--verdigris);
      left: 0;
      position: absolute;
      right: 0;
    }
    span {
      color: var(--ink-quiet);
      font-size: 13px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class PagePreview {
  readonly page = input.required<Page>();
  /** The chapter it lies in. */
  readonly heading = input<string>();
  /** How far down a place on it is that is meant, in points of page space. */
  readonly down = input<number>();
  private readonly source = inject(PageSource);
  private readonly painting = inject(AnnotationPainting);
  private readonly unread = inject(UnreadPages);
  private readonly all = inject(Store).selectSignal(documentFeature.selectAnnotations);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly scale = computed(() => WIDTH / shownSize(this.page()).width);
  protected readonly size = computed(() => {
    const { height } = shownSize(this.page());
    return { width: WIDTH, height: Math.round(height * this.scale()) };
  });

  protected readonly line = computed(() => {
    const [page, down] = [this.page(), this.down()];
    if (down === undefined || down <= 0 || page.rotation !== 0) return undefined;
    return `${Math.min(99, (100 * down) / page.height)}%`;
  });

  constructor() {
    effect((onCleanup) => {
      const [page, size, scale] = [this.page(), this.size(), this.scale()];
      const asking = new AbortController();
      const timer = setTimeout(() => void this.draw(page, size, scale, asking.signal), PASSES);
      onCleanup(() => {
        clearTimeout(timer);
        asking.abort();
      });
    });
  }

  private async draw(
    page: Page,
    { width, height }: { width: number; height: number },
    scale: number,
    signal: AbortSignal,
  ): Promise<void> {
    await this.unread.need([page.id]);
    const annotations = this.all()[page.id] ?? noAnnotations;
    const region = {
      x: 0,
      y: 0,
      width: Math.round(width * devicePixelRatio),
      height: Math.round(height * devicePixelRatio),
    };
    try {
      const params = {
        ...this.source.sheetOf(page),
        rotation: page.rotation,
        scale: scale * devicePixelRatio,
        region,
        marks: fileMarks(page, Object.values(annotations)),
      };
      const bitmap = await this.source.client.ask('render', params, () => URGENCY, signal);
      const canvas = this.canvas().nativeElement;
      if (!signal.aborted) {
        canvas.width = bitmap.width;
        canvas.height = bitmap.height;
        const context = canvas.getContext('2d')!;
        context.drawImage(bitmap, 0, 0);
        this.painting.paint(context, page, annotations, {
          ...region,
          scale: scale * devicePixelRatio,
        });
      }
      bitmap.close();
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }
}
