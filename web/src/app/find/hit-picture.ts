import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { FoundPage } from '@stylet/core/api';
import { pageView, transformBox, unite, type Box } from '@stylet/core/geometry';
import { Cancelled } from '../../workers/worker-client';
import { HitPictures } from './hit-pictures';

/** Size of the picture in CSS pixels, and how large the page is in it. */
const WIDTH = 210;
const HEIGHT = 76;
const PIXELS_PER_POINT = 0.72;

/** A small picture of the place where something was found. */
@Component({
  selector: 'stylet-hit-picture',
  template: `
    <canvas #canvas></canvas>
    @for (mark of marks(); track $index) {
      <div class="mark" [style]="mark"></div>
    }
    @if (failed()) {
      <span>No picture</span>
    }
  `,
  styles: `
    :host {
      background: var(--paper);
      border-radius: 6px;
      box-shadow: 0 0 0 1px var(--line);
      display: block;
      height: 76px;
      overflow: hidden;
      position: relative;
      width: 210px;
    }
    canvas {
      display: block;
      filter: var(--dark, none);
      height: 100%;
      width: 100%;
    }
    .mark {
      background: rgb(200 100 43 / 34%);
      border-radius: 2px;
      position: absolute;
    }
    span {
      color: var(--ink-quiet);
      font-size: 13px;
      inset: 0;
      padding: 28px 0;
      position: absolute;
      text-align: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
})
export class HitPicture {
  readonly page = input.required<FoundPage>();
  /** What was found, in page space. */
  readonly boxes = input.required<readonly Box[]>();
  private readonly pictures = inject(HitPictures);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly failed = signal(false);

  /** The boxes as the page is shown, in CSS pixels. */
  private readonly shown = computed(() => {
    const { width, height, rotation } = this.page();
    const view = pageView(width, height, rotation, PIXELS_PER_POINT);
    return this.boxes().map((box) => transformBox(view, box));
  });

  /** Where the picture's corner is on the page. */
  private readonly corner = computed(() => {
    const { width, height, rotation } = this.page();
    const [w, h] = rotation % 180 === 0 ? [width, height] : [height, width];
    const [first, ...others] = this.shown();
    if (!first) return { x: 0, y: 0 };
    const box = others.reduce(unite, first);
    const within = (at: number, whole: number, part: number): number =>
      Math.round(Math.max(0, Math.min(at - part / 2, whole * PIXELS_PER_POINT - part)));
    return {
      x: within((first.x0 + first.x1) / 2, w, WIDTH),
      y: within((box.y0 + Math.min(box.y1, box.y0 + HEIGHT / 2)) / 2, h, HEIGHT),
    };
  });

  protected readonly marks = computed(() => {
    const { x, y } = this.corner();
    return this.shown()
      .filter(({ x0, x1 }) => x1 > x0)
      .map(({ x0, y0, x1, y1 }) => ({
        left: `${x0 - x}px`,
        top: `${y0 - y}px`,
        width: `${x1 - x0}px`,
        height: `${y1 - y0}px`,
      }));
  });

  constructor() {
    effect((onCleanup) => {
      const [page, { x, y }] = [this.page(), this.corner()];
      const asking = new AbortController();
      // Only what comes into view is drawn, and the nearest first.
      const seen = new IntersectionObserver(
        ([entry]) => {
          if (!entry.isIntersecting) return;
          seen.disconnect();
          void this.draw(page, x, y, asking.signal);
        },
        { rootMargin: '200px' },
      );
      seen.observe(this.host.nativeElement);
      onCleanup(() => {
        seen.disconnect();
        asking.abort();
      });
    });
  }

  private async draw(page: FoundPage, x: number, y: number, signal: AbortSignal): Promise<void> {
    const ratio = devicePixelRatio;
    const region = {
      x: Math.round(x * ratio),
      y: Math.round(y * ratio),
      width: Math.round(WIDTH * ratio),
      height: Math.round(HEIGHT * ratio),
    };
    const urgency = (): number =>
      Math.abs(this.host.nativeElement.getBoundingClientRect().top) / innerHeight;
    try {
      const scale = PIXELS_PER_POINT * ratio;
      const bitmap = await this.pictures.draw(page, scale, region, urgency, signal);
      const canvas = this.canvas().nativeElement;
      if (!signal.aborted) {
        canvas.width = bitmap.width;
        canvas.height = bitmap.height;
        canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
        this.host.nativeElement.classList.add('drawn');
      }
      bitmap.close();
    } catch (error) {
      if (!(error instanceof Cancelled)) this.failed.set(true);
    }
  }
}
