import { contains, grow, type Box } from '../geometry/index';
import { polygonBounds, windingNumber, type Polygon } from '../ink/index';
import type { Annotation } from './annotation';

/** Share of an annotation's outline that has to lie in a region for it to be meant. */
export const MOSTLY = 0.6;

/**
 * The share of the corners of polygons that lie in a region (both in page space), 0–1; of a box
 * where there are no polygons.
 */
export function shareInside(polygons: readonly Polygon[], region: Polygon): number {
  const box = polygonBounds([region]);
  if (!box) return 0;
  let inside = 0;
  let all = 0;
  for (const polygon of polygons) {
    for (let i = 0; i < polygon.length; i += 2) {
      const p = { x: polygon[i], y: polygon[i + 1] };
      all++;
      if (contains(box, p) && windingNumber(region, p) !== 0) inside++;
    }
  }
  return all === 0 ? 0 : inside / all;
}

/**
 * The annotations that lie in a region at least to a share. `outlinesOf` gives what an annotation
 * fills; those of other programs go by their boxes.
 */
export function enclosedBy(
  region: Polygon,
  annotations: Iterable<Annotation>,
  outlinesOf: (annotation: Annotation) => readonly Polygon[],
  share = MOSTLY,
): Annotation[] {
  const reach = polygonBounds([region]);
  if (!reach) return [];
  return [...annotations].filter((annotation) => {
    const polygons =
      annotation.kind === 'foreign' ? [boxPolygon(annotation.box)] : outlinesOf(annotation);
    const box = polygonBounds(polygons);
    const isNear = box && box.x0 <= reach.x1 && box.x1 >= reach.x0 && box.y0 <= reach.y1;
    return isNear && box.y1 >= reach.y0 && shareInside(polygons, region) >= share;
  });
}

/** A box as a polygon, grown by so many points. */
export function boxPolygon(box: Box, by = 0): Polygon {
  const { x0, y0, x1, y1 } = grow(box, by);
  return Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1);
}
