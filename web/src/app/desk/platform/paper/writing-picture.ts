import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  afterRenderEffect,
  inject,
  input,
  untracked,
} from '@angular/core';
import type { Writing } from '@stylet/core/document';
import { grow, type Box } from '@stylet/core/geometry';
import { CanvasSurface } from './canvas-surface';
import { PaintSources } from './paint-sources';

/** Room round the writing, in points. */
const ROOM = 3;
/** Pixels a point at the most: a dot is not blown up. */
const LARGEST = 1.1;

/** A small picture of handwriting, or of whatever else is drawn. */
@Component({
  selector: 'stylet-writing-picture',
  template: '<canvas aria-hidden="true"></canvas>',
  styles: ':host { display: block; overflow: hidden; } canvas { display: block; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WritingPicture {
  readonly writing = input.required<Writing>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly sources = inject(PaintSources);
  private surface: CanvasSurface | undefined;

  constructor() {
    afterRenderEffect(() => {
      const { annotations, box } = this.writing();
      untracked(() => this.draw(annotations, grow(box, ROOM)));
    });
    const stop = this.sources.onCome((isConcerned) => {
      const { annotations, box } = this.writing();
      if (annotations.some(isConcerned)) this.draw(annotations, grow(box, ROOM));
    });
    inject(DestroyRef).onDestroy(stop);
  }

  /** As high as there is room for; what is longer than the room is cut. */
  private draw(annotations: Writing['annotations'], box: Box): void {
    const canvas = this.host.querySelector('canvas')!;
    this.surface ??= new CanvasSurface(canvas, this.sources);
    const { clientWidth, clientHeight } = this.host;
    const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
    const fitting = Math.min(clientHeight / height, LARGEST);
    // Half as high as it could be is still read; smaller than that it is cut.
    const css = Math.min(fitting, Math.max(clientWidth / width, fitting / 2));
    const scale = css * devicePixelRatio;
    const w = Math.min(clientWidth, width * css);
    this.surface.resize(Math.ceil(w * devicePixelRatio), Math.ceil(height * scale), [
      scale,
      0,
      0,
      scale,
      -box.x0 * scale,
      -box.y0 * scale,
    ]);
    canvas.style.width = `${w}px`;
    canvas.style.height = `${height * css}px`;
    this.surface.draw(annotations);
  }
}
