import type { Box } from '../geometry/index';

/** The longer side of a miniature, in pixels: enough to tell pages apart, little enough for all of a long book. */
export const MINIATURE = 96;
/** Miniatures beside each other on a tray, and below each other. */
export const TRAY_SIDE = 4;
/** Pages whose miniatures lie on one tray. */
export const ON_TRAY = TRAY_SIDE * TRAY_SIDE;

/** On which of its file's trays a page's miniature lies; both are counted from 0. */
export const trayOf = (sourceIndex: number): number => Math.floor(sourceIndex / ON_TRAY);

/**
 * Where a page's miniature lies on its tray, in pixels. `width` and `height` are the page's, in points, before it is
 * turned: so it lies there.
 */
export function miniatureBox(
  sourceIndex: number,
  { width, height }: { readonly width: number; readonly height: number },
): Box {
  const nth = sourceIndex % ON_TRAY;
  const x0 = (nth % TRAY_SIDE) * MINIATURE;
  const y0 = Math.floor(nth / TRAY_SIDE) * MINIATURE;
  const scale = MINIATURE / Math.max(width, height);
  const pixels = (length: number): number => Math.max(1, Math.round(length * scale));
  return { x0, y0, x1: x0 + pixels(width), y1: y0 + pixels(height) };
}
