import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { paintingOrder } from '@stylet/core/document';
import { pageView, transformBox, type Box } from '@stylet/core/geometry';
import { liesUnder } from '@stylet/core/paint';
import { CanvasSurface } from '../pages/canvas-surface';
import type { GesturePage } from '../pages/page-gestures';
import { pageToWindow } from '../pages/page-geometry';
import { PageSource } from '../pages/page-source';
import type { Refusable } from './shorthand-notice';

/** Print sharpness, in pixels a point: 300 to the inch. */
const SHARP = 300 / 72;
/** No snip has more pixels than this; a larger area comes out less sharp. */
const MOST_PIXELS = 36e6;

/** Takes pieces of pages as pictures, with what is written on them, onto the clipboard. */
@Injectable()
export class Snipping {
  private readonly source = inject(PageSource);
  private readonly snackBar = inject(MatSnackBar);

  /** Snips an area (page space) of a page, and says so. */
  async snip(target: GesturePage, area: Box, asInk: Refusable): Promise<void> {
    try {
      const picture = await this.picture(target, area);
      await navigator.clipboard.write([new ClipboardItem({ 'image/png': picture })]);
      asInk.tell('Snipped: the picture is on the clipboard.');
    } catch (error) {
      const reason = error instanceof Error ? error.message : String(error);
      this.snackBar.open(
        `Nothing was snipped: ${reason}. Allow this page to use the clipboard and try again.`,
        'Close',
        { duration: 10_000 },
      );
    }
  }

  /** An area as PNG: the page, what lies under its words, and what lies over them. */
  private async picture({ page, index, annotations }: GesturePage, area: Box): Promise<Blob> {
    const box = transformBox(pageView(page.width, page.height, page.rotation, 1), area);
    const size = (box.x1 - box.x0) * (box.y1 - box.y0);
    const scale = Math.min(SHARP, Math.sqrt(MOST_PIXELS / size));
    const region = {
      x: Math.round(box.x0 * scale),
      y: Math.round(box.y0 * scale),
      width: Math.max(1, Math.round((box.x1 - box.x0) * scale)),
      height: Math.max(1, Math.round((box.y1 - box.y0) * scale)),
    };
    const all = paintingOrder(annotations);
    const marks = all.flatMap((a) => (a.kind === 'foreign' ? [a.origin.object] : []));
    const bitmap = await this.source.client.ask('render', {
      page: index,
      scale,
      region,
      marks: marks.sort((a, b) => a - b),
    });
    const canvas = document.createElement('canvas');
    canvas.width = region.width;
    canvas.height = region.height;
    const context = canvas.getContext('2d')!;
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    const matrix = pageToWindow(page, { ...region, scale, pageWidth: 0, pageHeight: 0 });
    for (const isUnder of [true, false]) {
      const layer = new CanvasSurface(document.createElement('canvas'));
      layer.resize(region.width, region.height, matrix);
      layer.draw(all.filter((a) => liesUnder(a) === isUnder));
      if (layer.canvas.width === 0) continue;
      context.globalCompositeOperation = isUnder ? 'multiply' : 'source-over';
      context.drawImage(layer.canvas, 0, 0);
    }
    return new Promise((resolve, reject) =>
      canvas.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large'))),
        'image/png',
      ),
    );
  }
}
