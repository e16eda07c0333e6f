import type { Page } from '@stylet/core/api';
import { transform } from '@stylet/core/geometry';
import type { PictureCorners } from '@stylet/core/text';
import { pageToWindow } from './page-geometry';
import type { PageWindow } from './page-window';

/** The pictures of a page as they are, to lie over its bitmap where that is shown dark; none: undefined. */
export function brightPictures(
  bitmap: HTMLCanvasElement,
  pictures: readonly PictureCorners[],
  page: Page,
  window: PageWindow,
): HTMLCanvasElement | undefined {
  if (pictures.length === 0) return undefined;
  const canvas = document.createElement('canvas');
  canvas.className = 'bright';
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  canvas.style.cssText = bitmap.style.cssText;
  const context = canvas.getContext('2d')!;
  const toWindow = pageToWindow(page, window);
  context.beginPath();
  for (const corners of pictures) {
    corners.forEach((corner, i) => {
      const { x, y } = transform(toWindow, corner);
      if (i === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    });
    context.closePath();
  }
  context.clip();
  context.drawImage(bitmap, 0, 0);
  return canvas;
}
