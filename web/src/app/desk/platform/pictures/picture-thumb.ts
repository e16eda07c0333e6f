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
import type { Picture } from '@stylet/core/document';
import { boundsOf } from '@stylet/core/geometry';
import { PictureBitmaps } from './picture-bitmaps';
import { tinted } from './tinted';

/** What of a picture is seen, and in which colour where that is not its own. */
type Shown = Pick<Picture, 'digest' | 'medium' | 'width' | 'height' | 'crop' | 'tint'>;

/** A small view of a picture, or of the box round what is meant of it, in a square. */
@Component({
  selector: 'stylet-picture-thumb',
  template: '<canvas aria-hidden="true"></canvas>',
  styles: ':host, canvas { display: block; height: 100%; width: 100%; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureThumb {
  readonly picture = input.required<Shown>();
  private readonly bitmaps = inject(PictureBitmaps);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    afterRenderEffect(() => {
      this.picture();
      untracked(() => this.draw());
    });
    const stop = this.bitmaps.onCome((digest) => {
      if (digest === this.picture().digest) this.draw();
    });
    inject(DestroyRef).onDestroy(stop);
  }

  private draw(): void {
    const canvas = this.host.querySelector('canvas')!;
    const side = Math.round(this.host.clientWidth * devicePixelRatio);
    canvas.width = canvas.height = side;
    const { crop, tint, ...whole } = this.picture();
    const part = (crop && boundsOf(crop)) ?? { x0: 0, y0: 0, x1: 1, y1: 1 };
    const [width, height] = [whole.width * (part.x1 - part.x0), whole.height * (part.y1 - part.y0)];
    const scale = side / Math.max(width, height);
    const bitmap = this.bitmaps.bitmapFor(whole, Math.max(1, whole.width * scale));
    if (!bitmap) return;
    const context = canvas.getContext('2d')!;
    const [w, h] = [width * scale, height * scale];
    context.imageSmoothingQuality = 'high';
    const { width: across, height: down } = bitmap;
    context.drawImage(
      tint ? tinted(bitmap, tint) : bitmap,
      part.x0 * across,
      part.y0 * down,
      (part.x1 - part.x0) * across,
      (part.y1 - part.y0) * down,
      (side - w) / 2,
      (side - h) / 2,
      w,
      h,
    );
  }
}
