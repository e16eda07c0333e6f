import { Injectable, inject } from '@angular/core';
import { paintingOrder } from '@stylet/core/document';
import { pageView, transformBox, type Box } from '@stylet/core/geometry';
import { printScale } from '../../platform/pictures/canvas-picture';
import { pageToWindow } from '../../platform/paper/page-geometry';
import type { GesturePage } from '../../platform/input/gesture-page';
import { PageSource } from '../../platform/paper/page-source';
import { AnnotationPainting } from '../../platform/paper/annotation-painting';
import type { SnipArea } from './snip-area';
import { fileMarks } from '../../platform/paper/window';

/** Draws parts of pages as they are seen, sharp enough for print. */
@Injectable()
export class PageDrawing {
  private readonly source = inject(PageSource);
  private readonly painting = inject(AnnotationPainting);

  /** What lies within an area, with or without what is on the page; clear outside its outline. */
  async draw(
    { page, annotations }: Pick<GesturePage, 'page' | 'annotations'>,
    area: SnipArea,
    withAnnotations: boolean,
  ): Promise<HTMLCanvasElement> {
    const box = transformBox(pageView(page.width, page.height, page.rotation, 1), area.box);
    const region = pixelsOf(box, printScale(box.x1 - box.x0, box.y1 - box.y0));
    const all = withAnnotations ? paintingOrder(annotations) : [];
    const { scale } = region;
    const bitmap = await this.source.client.ask('render', {
      ...this.source.sheetOf(page),
      rotation: page.rotation,
      scale,
      region,
      marks: fileMarks(page, all),
    });
    const canvas = document.createElement('canvas');
    canvas.width = region.width;
    canvas.height = region.height;
    const context = canvas.getContext('2d')!;
    const matrix = pageToWindow(page, { ...region, pageWidth: 0, pageHeight: 0 });
    if (area.outline) {
      context.setTransform(...matrix);
      context.beginPath();
      for (const { x, y } of area.outline) context.lineTo(x, y);
      context.clip();
      context.setTransform(1, 0, 0, 1, 0, 0);
    }
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    if (withAnnotations) this.painting.paint(context, page, annotations, region);
    return canvas;
  }
}

/** A box of the page as it is shown (points) in whole pixels of a scale. */
function pixelsOf({ x0, y0, x1, y1 }: Box, scale: number) {
  return {
    scale,
    x: Math.round(x0 * scale),
    y: Math.round(y0 * scale),
    width: Math.max(1, Math.round((x1 - x0) * scale)),
    height: Math.max(1, Math.round((y1 - y0) * scale)),
  };
}
