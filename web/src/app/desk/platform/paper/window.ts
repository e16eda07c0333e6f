import type { Page } from '@stylet/core/api';
import type { Annotation } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import { PIXELS_PER_POINT } from './layout';
import { shownSize } from './page-geometry';
import type { PageWindow } from './page-window';

/** Pages of up to so many pixels are drawn whole; of larger ones, what shows and some more. */
const WHOLE_PAGE = 5_000_000;
const MARGIN = 0.3;

/**
 * The window to draw of a page of the given size (device pixels) when `visible` of it shows. A window
 * there is already, the present one or one that is being drawn, is kept while it covers what shows.
 */
export function chooseWindow(
  scale: number,
  pageWidth: number,
  pageHeight: number,
  visible: Box,
  ...there: readonly (PageWindow | undefined)[]
): PageWindow {
  const width = Math.max(1, Math.round(pageWidth));
  const height = Math.max(1, Math.round(pageHeight));
  const base = { scale, pageWidth: width, pageHeight: height };
  const same = there.filter(
    (window): window is PageWindow =>
      window?.scale === scale && window.pageWidth === width && window.pageHeight === height,
  );
  if (width * height <= WHOLE_PAGE) return same[0] ?? { ...base, x: 0, y: 0, width, height };
  const shown = clip(visible, width, height);
  const kept = same.find((window) => covers(window, shown));
  if (kept) return kept;
  const mx = (visible.x1 - visible.x0) * MARGIN;
  const my = (visible.y1 - visible.y0) * MARGIN;
  const box = clip(
    { x0: visible.x0 - mx, y0: visible.y0 - my, x1: visible.x1 + mx, y1: visible.y1 + my },
    width,
    height,
  );
  return {
    ...base,
    x: box.x0,
    y: box.y0,
    width: Math.max(1, box.x1 - box.x0),
    height: Math.max(1, box.y1 - box.y0),
  };
}

/** The window to draw of a page at a zoom when so much of it shows, as shares of its size. */
export function pageWindow(
  page: Page,
  zoom: number,
  shares: Box,
  ...there: readonly (PageWindow | undefined)[]
): PageWindow {
  const { width: w, height: h } = shownSize(page);
  const scale = zoom * PIXELS_PER_POINT * devicePixelRatio;
  const visible = {
    x0: shares.x0 * w * scale,
    y0: shares.y0 * h * scale,
    x1: shares.x1 * w * scale,
    y1: shares.y1 * h * scale,
  };
  return chooseWindow(scale, w * scale, h * scale, visible, ...there);
}

/** Object numbers of the marks that are drawn from the file, in order; none where it has no marks. */
export function fileMarks(
  page: Pick<Page, 'hasMarks'>,
  annotations: readonly Annotation[],
): number[] | undefined {
  if (!page.hasMarks) return undefined;
  return annotations
    .flatMap((a) => (a.kind === 'foreign' ? [a.origin.object] : []))
    .sort((a, b) => a - b);
}

function clip(box: Box, width: number, height: number): Box {
  return {
    x0: Math.min(width, Math.max(0, Math.floor(box.x0))),
    y0: Math.min(height, Math.max(0, Math.floor(box.y0))),
    x1: Math.min(width, Math.max(0, Math.ceil(box.x1))),
    y1: Math.min(height, Math.max(0, Math.ceil(box.y1))),
  };
}

function covers(window: PageWindow, box: Box): boolean {
  return (
    window.x <= box.x0 &&
    window.y <= box.y0 &&
    window.x + window.width >= box.x1 &&
    window.y + window.height >= box.y1
  );
}
