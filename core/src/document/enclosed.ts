import { contains, grow, type Box, type Nearby, type Point } from '../geometry/index';
import { polygonBounds, windingNumber, type Polygon } from '../ink/index';
import type { Annotation } from './annotation';

/** Share of an annotation's outline that has to lie in a region for it to be meant. */
export const MOSTLY = 0.6;

/** What of the annotations in and about a region is meant: what lies mostly in it, or all it touches. */
export const regionTakes = ['inside', 'touched'] as const;
export type RegionTakes = (typeof regionTakes)[number];

/** How annotations are looked for in a region. */
export interface Looking {
  /** What an annotation fills; those of other programs go by their boxes. */
  readonly outlinesOf: (annotation: Annotation) => readonly Polygon[];
  /** Where the annotations are, by their places in the list; without it each is looked at. */
  readonly index?: Nearby;
  readonly takes?: RegionTakes;
  /** For `inside`: the least share that has to lie in the region. */
  readonly share?: number;
}

/** The annotations in a region (page space), in the order they are given. */
export function enclosedBy(
  region: Polygon,
  annotations: readonly Annotation[],
  { outlinesOf, index, takes = 'inside', share = MOSTLY }: Looking,
): Annotation[] {
  const reach = polygonBounds([region]);
  if (!reach) return [];
  const near = index ? index.find(reach).sort((a, b) => a - b) : annotations.map((_, i) => i);
  return near
    .map((i) => annotations[i])
    .filter((annotation) => {
      const polygons = outlinesOf(annotation);
      const box = polygonBounds(polygons);
      if (!box || box.x0 > reach.x1 || box.x1 < reach.x0) return false;
      if (box.y0 > reach.y1 || box.y1 < reach.y0) return false;
      return takes === 'touched'
        ? polygons.some((polygon) => touch(polygon, region))
        : shareInside(polygons, region) >= share;
    });
}

/** The share of the corners of polygons that lie in a region, 0–1. */
export function shareInside(polygons: readonly Polygon[], region: Polygon): number {
  const box = polygonBounds([region]);
  if (!box) return 0;
  let inside = 0;
  let all = 0;
  for (const polygon of polygons) {
    for (let i = 0; i < polygon.length; i += 2) {
      all++;
      if (isIn(region, box, { x: polygon[i], y: polygon[i + 1] })) inside++;
    }
  }
  return all === 0 ? 0 : inside / all;
}

/** Whether two polygons share a point. */
function touch(a: Polygon, b: Polygon): boolean {
  const [boxA, boxB] = [polygonBounds([a]), polygonBounds([b])];
  if (!boxA || !boxB) return false;
  // Either one lies in the other, or their edges cross.
  if (isIn(b, boxB, { x: a[0], y: a[1] }) || isIn(a, boxA, { x: b[0], y: b[1] })) return true;
  for (let i = 0; i < a.length; i += 2)
    for (let k = 0; k < b.length; k += 2) if (edgesCross(a, i, b, k)) return true;
  return false;
}

function isIn(polygon: Polygon, box: Box, p: Point): boolean {
  return contains(box, p) && windingNumber(polygon, p) !== 0;
}

function edgesCross(a: Polygon, i: number, b: Polygon, k: number): boolean {
  const [ax, ay] = [a[i], a[i + 1]];
  const [bx, by] = [a[(i + 2) % a.length], a[(i + 3) % a.length]];
  const [cx, cy] = [b[k], b[k + 1]];
  const [dx, dy] = [b[(k + 2) % b.length], b[(k + 3) % b.length]];
  const side = (px: number, py: number, qx: number, qy: number, x: number, y: number): number =>
    (qx - px) * (y - py) - (qy - py) * (x - px);
  return (
    side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) <= 0 &&
    side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) <= 0
  );
}

/** A box as a polygon, grown by so many points. */
export function boxPolygon(box: Box, by = 0): Polygon {
  const { x0, y0, x1, y1 } = grow(box, by);
  return Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1);
}
