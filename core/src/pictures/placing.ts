import { compose, inverse, pageView, transform, type Matrix, type Point } from '../geometry/index';

/** Points to a pixel: there are 96 to the inch (CSS Values and Units 4, 6.2). */
export const POINTS_PER_PIXEL = 72 / 96;
/** No picture takes more than this share of the page's width or height when it is put there. */
const MOST = 0.6;

interface PageSize {
  readonly width: number;
  readonly height: number;
  readonly rotation: 0 | 90 | 180 | 270;
}

/**
 * Where a picture of a size (points) goes that is put at a point of a page (page space): about that
 * point, upright as the page is shown, wholly on it, in its own size or as large as there is room for.
 * The map is from the picture's unit square to page space.
 */
export function placing(
  size: { width: number; height: number },
  at: Point,
  page: PageSize,
): Matrix {
  const view = pageView(page.width, page.height, page.rotation, 1);
  const isSideways = page.rotation % 180 !== 0;
  const [w, h] = isSideways ? [page.height, page.width] : [page.width, page.height];
  const scale = Math.min(1, (MOST * w) / size.width, (MOST * h) / size.height);
  const [width, height] = [size.width * scale, size.height * scale];
  const middle = transform(view, at);
  const within = (value: number, most: number): number => Math.min(most, Math.max(0, value));
  const left = within(middle.x - width / 2, w - width);
  const top = within(middle.y - height / 2, h - height);
  return compose([width, 0, 0, height, left, top], inverse(view));
}
