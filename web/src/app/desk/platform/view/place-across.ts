import type { Page } from '@stylet/core/api';
import {
  compose,
  inverse,
  pageView,
  transform,
  type Matrix,
  type Point,
} from '@stylet/core/geometry';
import { PIXELS_PER_POINT, pageAt, type Layout } from '../paper/layout';

/** A point of a page, in its page space. */
export interface PointOnPage {
  readonly page: Page;
  readonly at: Point;
}

interface LaidOut {
  readonly pages: readonly Page[];
  readonly layout: Layout;
}

/**
 * A point given on one page, as one of the page that lies there, or nearest: a drag goes on over the edge of the page
 * it began on. Undefined when the page is not among those laid out.
 */
export function placeAcross(laid: LaidOut, page: Page, at: Point): PointOnPage | undefined {
  const index = laid.pages.findIndex(({ id }) => id === page.id);
  return index < 0 ? undefined : placeIn(laid, transform(toLayout(laid, index), at));
}

/** The page at a point of what is laid out (CSS pixels), or the nearest; and where on it. */
export const placeIn = (laid: LaidOut, there: Point): PointOnPage =>
  pointOn(laid, pageAt(laid.layout, there.y, there.x), there);

/** Where a point of what is laid out (CSS pixels) is in the space of a page, on it or not; undefined without it. */
export function placeOn(laid: LaidOut, page: Page, there: Point): PointOnPage | undefined {
  const index = laid.pages.findIndex(({ id }) => id === page.id);
  return index < 0 ? undefined : pointOn(laid, index, there);
}

const pointOn = (laid: LaidOut, index: number, there: Point): PointOnPage => ({
  page: laid.pages[index],
  at: transform(inverse(toLayout(laid, index)), there),
});

/** From the space of a page to the pixels of what is laid out. */
function toLayout({ pages, layout }: LaidOut, index: number): Matrix {
  const { width, height, rotation } = pages[index];
  const { left, top } = layout.pages[index];
  const view = pageView(width, height, rotation, layout.zoom * PIXELS_PER_POINT);
  return compose(view, [1, 0, 0, 1, left, top]);
}
