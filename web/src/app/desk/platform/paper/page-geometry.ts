import type { Page } from '@stylet/core/api';
import {
  inverse,
  pageView,
  transform,
  transformBox,
  type Box,
  type Matrix,
  type Point,
} from '@stylet/core/geometry';
import type { PageWindow } from './page-window';

type Sheet = Pick<Page, 'width' | 'height' | 'rotation'>;

/** A page's width and height as it is shown, turned, in points. */
export function shownSize({ width, height, rotation }: Sheet): { width: number; height: number } {
  return rotation % 180 === 0 ? { width, height } : { width: height, height: width };
}

/** A way in CSS pixels, to the nearest whole pixel of the screen. */
export function wholePixels(way: number): number {
  return Math.round(way * devicePixelRatio) / devicePixelRatio;
}

/** From client coordinates to page space, for a page that fills a rectangle of the window. */
export function screenToPage(page: Sheet, rect: DOMRect): Matrix {
  const { width, height, rotation } = page;
  const view = pageView(width, height, rotation, rect.width / shownSize(page).width);
  const [a, b, c, d, e, f] = inverse(view);
  const origin = transform([a, b, c, d, e, f], { x: -rect.left, y: -rect.top });
  return [a, b, c, d, origin.x, origin.y];
}

/** From page space to the pixels of a window onto the page. */
export function pageToWindow(page: Sheet, { scale, x, y }: PageWindow): Matrix {
  const { width, height, rotation } = page;
  const [a, b, c, d, e, f] = pageView(width, height, rotation, scale);
  return [a, b, c, d, e - x, f - y];
}

/** Where a box (page space) lies on the page as it is shown, in CSS percentages. */
export function placeOnPage(page: Sheet, box: Box): Record<string, string> {
  const shown = transformBox(pageView(page.width, page.height, page.rotation, 1), box);
  const { width, height } = shownSize(page);
  return {
    left: `${(100 * shown.x0) / width}%`,
    top: `${(100 * shown.y0) / height}%`,
    width: `${(100 * (shown.x1 - shown.x0)) / width}%`,
    height: `${(100 * (shown.y1 - shown.y0)) / height}%`,
  };
}

/** A way (page space) on the page as it is shown, in points, as SVG has it. */
export function shownWay({ width, height, rotation }: Sheet, way: readonly Point[]): string {
  const view = pageView(width, height, rotation, 1);
  return way
    .map((p) => transform(view, p))
    .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
    .join(' ');
}
