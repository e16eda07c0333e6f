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
import { PictureBitmaps } from '../../platform/pictures/picture-bitmaps';
import type { ReadyPicture } from '../../platform/pictures/recent-pictures';

/** A small view of a picture, whole, in a square. */
@Component({
  selector: 'stylet-picture-thumb',
  template: '<canvas aria-hidden="true"></canvas>',
  styles: ':host, canvas { display: block; height: 100%; width: 100%; }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PictureThumb {
  readonly picture = input.required<ReadyPicture>();
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
    const { width, height } = this.picture();
    const scale = side / Math.max(width, height);
    const bitmap = this.bitmaps.bitmapFor(this.picture(), Math.max(1, width * scale));
    if (!bitmap) return;
    const context = canvas.getContext('2d')!;
    const [w, h] = [width * scale, height * scale];
    context.imageSmoothingQuality = 'high';
    context.drawImage(bitmap, (side - w) / 2, (side - h) / 2, w, h);
  }
}
