import { boundsOf, type Box, type Point } from '../geometry/index';
import { gripAt, type FramePart } from '../selection/index';

/** No less of a picture's width or height than this share is left. */
const LEAST = 0.005;
/** Outlines round less than this share of a picture are slips of the hand. */
const LEAST_AREA = 1e-5;
const MOST_POINTS = 2000;

/**
 * An outline (unit square) as the crop of a picture: what of it lies on the picture. Undefined where
 * that is nothing. After I. E. Sutherland and G. W. Hodgman, “Reentrant polygon clipping” (1974).
 */
export function cropTo(outline: readonly Point[]): Point[] | undefined {
  let points: readonly Point[] = thinned(outline);
  points = clipped(points, ({ x }) => x);
  points = clipped(points, ({ x }) => 1 - x);
  points = clipped(points, ({ y }) => y);
  points = clipped(points, ({ y }) => 1 - y);
  return points.length < 3 || Math.abs(areaOf(points)) < LEAST_AREA ? undefined : [...points];
}

/** The part of a polygon where `inside` is not negative; it is linear. */
function clipped(points: readonly Point[], inside: (p: Point) => number): Point[] {
  return points.flatMap((p, i) => {
    const before = points.at(i - 1)!;
    const [d, e] = [inside(before), inside(p)];
    const crossing = (): Point => {
      const t = d / (d - e);
      return { x: before.x + (p.x - before.x) * t, y: before.y + (p.y - before.y) * t };
    };
    if (e >= 0) return d < 0 ? [crossing(), p] : [p];
    return d >= 0 ? [crossing()] : [];
  });
}

/** As many points as a crop may have, with room for those at its edges. */
function thinned(points: readonly Point[]): readonly Point[] {
  const step = Math.ceil(points.length / (MOST_POINTS / 2));
  return step > 1 ? points.filter((_, i) => i % step === 0) : points;
}

/** Twice a polygon's area, by the shoelace formula. */
function areaOf(points: readonly Point[]): number {
  return points.reduce((sum, p, i) => {
    const before = points.at(i - 1)!;
    return sum + before.x * p.y - p.x * before.y;
  }, 0);
}

/** The box round what shows of a picture, in its unit square. */
export const cropBox = (crop: readonly Point[] | undefined): Box =>
  (crop && boundsOf(crop)) ?? { x0: 0, y0: 0, x1: 1, y1: 1 };

/** A crop's box with one of its corners or sides dragged to a point (unit square). */
export function dragCrop(box: Box, grip: FramePart, to: Point): Box {
  const share = gripAt(grip);
  if (!share) return box;
  const within = (value: number, least: number, most: number): number =>
    Math.min(most, Math.max(least, value));
  return {
    x0: share.x === 0 ? within(to.x, 0, box.x1 - LEAST) : box.x0,
    x1: share.x === 1 ? within(to.x, box.x0 + LEAST, 1) : box.x1,
    y0: share.y === 0 ? within(to.y, 0, box.y1 - LEAST) : box.y0,
    y1: share.y === 1 ? within(to.y, box.y0 + LEAST, 1) : box.y1,
  };
}

/** A crop's box as its outline; undefined where it is the whole picture. */
export function boxCrop({ x0, y0, x1, y1 }: Box): Point[] | undefined {
  if (x0 <= 0 && y0 <= 0 && x1 >= 1 && y1 >= 1) return undefined;
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
}
