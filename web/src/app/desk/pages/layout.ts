import type { Page } from '@stylet/core/api';

/** CSS pixels a point at 100 %: true size on a screen of 96 pixels to the inch. */
export const PIXELS_PER_POINT = 96 / 72;
export const SMALLEST_ZOOM = 0.25;
export const LARGEST_ZOOM = 8;
/** Room between pages and round them, in pixels. */
export const GAP = 20;

/** Where a page is shown in the column of pages, in CSS pixels. */
export interface Placed {
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** All pages one below the other. */
export interface Layout {
  readonly zoom: number;
  readonly pages: readonly Placed[];
  readonly width: number;
  readonly height: number;
}

/** Width and height of a page as shown, in points. */
export function shownSize(page: Page): { width: number; height: number } {
  return page.rotation % 180 === 0
    ? { width: page.width, height: page.height }
    : { width: page.height, height: page.width };
}

export function layOut(pages: readonly Page[], zoom: number): Layout {
  const scale = zoom * PIXELS_PER_POINT;
  let top = GAP;
  let width = 0;
  const placed = pages.map((page) => {
    const size = shownSize(page);
    const place = { top, width: size.width * scale, height: size.height * scale };
    top += place.height + GAP;
    width = Math.max(width, place.width);
    return place;
  });
  return { zoom, pages: placed, width: width + 2 * GAP, height: top };
}

/** Index of the last page that starts at or above `y`; 0 before the first. */
export function pageAt(layout: Layout, y: number): number {
  let low = 0;
  let high = layout.pages.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (layout.pages[middle].top <= y) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Indexes of the pages that show between two heights: first and last, both included. */
export function pagesBetween(layout: Layout, from: number, to: number): [number, number] {
  return [pageAt(layout, from), pageAt(layout, to)];
}

export const clampZoom = (zoom: number): number =>
  Math.min(LARGEST_ZOOM, Math.max(SMALLEST_ZOOM, zoom));

/** The zoom at which the widest page fills the width, or the page in view the whole window. */
export function fittingZoom(
  pages: readonly Page[],
  current: number,
  view: { width: number; height: number },
  fit: 'width' | 'page',
): number {
  const sizes = fit === 'page' ? [shownSize(pages[current])] : pages.map(shownSize);
  const widest = sizes.reduce((most, size) => Math.max(most, size.width), 0);
  const byWidth = (view.width - 2 * GAP) / (widest * PIXELS_PER_POINT);
  if (fit === 'width') return clampZoom(byWidth);
  const byHeight = (view.height - 2 * GAP) / (sizes[0].height * PIXELS_PER_POINT);
  return clampZoom(Math.min(byWidth, byHeight));
}

/** The page a label or a number means: labels first, as printed; undefined for neither. */
export function findPage(pages: readonly Page[], wanted: string): number | undefined {
  const text = wanted.trim();
  if (text === '') return undefined;
  const exact = pages.findIndex(({ label }) => label === text);
  if (exact >= 0) return exact;
  const folded = pages.findIndex(({ label }) => label.toLowerCase() === text.toLowerCase());
  if (folded >= 0) return folded;
  const number = /^\d+$/.test(text) ? Number(text) : NaN;
  return number >= 1 && number <= pages.length ? number - 1 : undefined;
}
