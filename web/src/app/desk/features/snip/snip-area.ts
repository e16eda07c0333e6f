import type { Page } from '@stylet/core/api';
import {
  boundsOf,
  compose,
  intersect,
  inverse,
  pageView,
  transform,
  transformBox,
  type Box,
  type Point,
} from '@stylet/core/geometry';
import { cropTo } from '@stylet/core/pictures';

/** What of a page is snipped (page space): a box, or what lies within an outline in it. */
export interface SnipArea {
  readonly box: Box;
  readonly outline?: readonly Point[];
}

/** Smaller areas are slips of the hand, in points. */
const LEAST = 4;

/** An area that was drawn, as far as it lies on the page; undefined where that is too little. */
export function snipArea(
  way: readonly Point[],
  isFreehand: boolean,
  page: Page,
): SnipArea | undefined {
  const drawn = boundsOf(way);
  const box = drawn && intersect(drawn, { x0: 0, y0: 0, x1: page.width, y1: page.height });
  if (!box || box.x1 - box.x0 < LEAST || box.y1 - box.y0 < LEAST) return undefined;
  return isFreehand ? { box, outline: way } : { box };
}

/** The crop of a picture of the area's box, seen as the page is: none for a whole box. */
export function cropOf({ box, outline }: SnipArea, page: Page): Point[] | undefined {
  if (!outline) return undefined;
  const view = pageView(page.width, page.height, page.rotation, 1);
  const { x0, y0, x1, y1 } = transformBox(view, box);
  const toUnit = compose(view, inverse([x1 - x0, 0, 0, y1 - y0, x0, y0]));
  return cropTo(outline.map((p) => transform(toUnit, p)));
}
