import { Injectable, inject } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { paintingOrder, strata, stratumOf, type PageAnnotations } from '@stylet/core/document';
import type { Region } from '../../../../workers/protocol';
import { PaintSources } from './paint-sources';
import { CanvasSurface } from './canvas-surface';
import { pageToWindow } from './page-geometry';

/** Paints what is on pages onto pictures of them. */
@Injectable()
export class AnnotationPainting {
  private readonly sources = inject(PaintSources);

  /** `region` is what the picture shows, in its pixels; `scale` its pixels to a point. */
  paint(
    context: CanvasRenderingContext2D,
    page: Page,
    annotations: PageAnnotations,
    region: Region & { readonly scale: number },
  ): void {
    const all = paintingOrder(annotations);
    if (all.length === 0) return;
    const matrix = pageToWindow(page, { ...region, pageWidth: 0, pageHeight: 0 });
    for (const stratum of strata) {
      const surface = new CanvasSurface(document.createElement('canvas'), this.sources);
      surface.resize(region.width, region.height, matrix);
      surface.draw(all.filter((annotation) => stratumOf(annotation) === stratum));
      if (surface.canvas.width === 0) continue;
      context.globalCompositeOperation = stratum === 'under' ? 'multiply' : 'source-over';
      context.drawImage(surface.canvas, 0, 0);
    }
    context.globalCompositeOperation = 'source-over';
  }
}
