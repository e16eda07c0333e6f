import { boxOf, type Point } from '@stylet/core/geometry';

/** How a region is drawn: along its outline, or from one corner of a box to the other. */
export type RegionDrawn = 'freehand' | 'rectangle';

/** The outline of a region, from the way that was drawn so far. */
export function regionOf(way: readonly Point[], drawn: RegionDrawn): readonly Point[] {
  if (drawn === 'freehand' || way.length === 0) return way;
  const { x0, y0, x1, y1 } = boxOf(way[0], way[way.length - 1]);
  return [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
    { x: x0, y: y0 },
  ];
}
