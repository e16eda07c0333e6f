import type { Picture } from '../document/index';
import {
  boundsOf,
  compose,
  inverse,
  pageView,
  transform,
  type Matrix,
  type Point,
} from '../geometry/index';
import type { Stamp } from './stamp';

interface PageSize {
  readonly width: number;
  readonly height: number;
  readonly rotation: 0 | 90 | 180 | 270;
}

type Placed = Pick<Stamp, 'crop' | 'size'>;

/** No stamp gets smaller than this by dragging, in points: it could not be found again. */
export const LEAST_STAMP = 2;

/** The box in a picture's unit square of what is meant of it. */
function partOf({ crop }: Pick<Picture, 'crop'>) {
  return (crop && boundsOf(crop)) ?? { x0: 0, y0: 0, x1: 1, y1: 1 };
}

/** The map of a picture's unit square by which the part that is meant fills a box as the page is shown. */
function filling(stamp: Placed, left: number, top: number, width: number, height: number): Matrix {
  const { x0, y0, x1, y1 } = partOf(stamp);
  const [a, d] = [width / (x1 - x0), height / (y1 - y0)];
  return [a, 0, 0, d, left - a * x0, top - d * y0];
}

/**
 * Where a stamp goes at a point of a page (page space): about that point, upright as the page is shown, as large as it was
 * made. The map is from the picture's unit square to page space.
 */
export function stampAt(stamp: Placed, at: Point, page: PageSize): Matrix {
  const view = pageView(page.width, page.height, page.rotation, 1);
  const middle = transform(view, at);
  const { width, height } = stamp.size;
  const map = filling(stamp, middle.x - width / 2, middle.y - height / 2, width, height);
  return compose(map, inverse(view));
}

/**
 * Where a stamp goes that is dragged from a corner to a point (page space): as large as there is room between them, in its own
 * proportions, on that side of the corner. The map is from the picture's unit square to page space.
 */
export function stampBetween(stamp: Placed, from: Point, to: Point, page: PageSize): Matrix {
  const view = pageView(page.width, page.height, page.rotation, 1);
  const [a, b] = [transform(view, from), transform(view, to)];
  const { width, height } = stamp.size;
  const wanted = Math.max(Math.abs(b.x - a.x) / width, Math.abs(b.y - a.y) / height);
  const scale = Math.max(wanted, LEAST_STAMP / Math.max(width, height));
  const [w, h] = [width * scale, height * scale];
  const map = filling(stamp, b.x < a.x ? a.x - w : a.x, b.y < a.y ? a.y - h : a.y, w, h);
  return compose(map, inverse(view));
}

/** The sides (points) of what is meant of a picture that is shown `pointsPerUnit` points to each of its own units. */
export function sizeMade(
  picture: Pick<Picture, 'crop' | 'width' | 'height'>,
  pointsPerUnit: number,
): Stamp['size'] {
  const { x0, y0, x1, y1 } = partOf(picture);
  return {
    width: picture.width * pointsPerUnit * (x1 - x0),
    height: picture.height * pointsPerUnit * (y1 - y0),
  };
}
