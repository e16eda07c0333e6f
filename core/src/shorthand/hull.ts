import { polygonHull } from 'd3-polygon';
import type { Point } from '../geometry/index';
import type { Polygon } from '../ink/index';

/** The convex hull of a way as x, y, x, y, …; undefined for ways without area. */
export function hullOf(way: readonly Point[]): Polygon | undefined {
  const hull = polygonHull(way.map(({ x, y }): [number, number] => [x, y]));
  return hull ? Float64Array.from(hull.flat()) : undefined;
}
