import type { Box, Point } from '../geometry/index';
import { distanceBetweenSegments } from '../geometry/index';
import type { Swipe } from './cut';
import type { Polygon } from './outline';

/** The smallest box around polygons (points), or undefined when there are none. */
export function polygonBounds(polygons: readonly Polygon[]): Box | undefined {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const polygon of polygons) {
    for (let i = 0; i < polygon.length; i += 2) {
      const x = polygon[i];
      const y = polygon[i + 1];
      if (x < x0) x0 = x;
      if (x > x1) x1 = x;
      if (y < y0) y0 = y;
      if (y > y1) y1 = y;
    }
  }
  return x0 <= x1 ? { x0, y0, x1, y1 } : undefined;
}

/**
 * Winding number of a polygon about a point: zero outside, by the nonzero rule of ISO 32000-1,
 * 8.5.3.3.2. After D. Sunday, "Inclusion of a point in a polygon" (2001).
 */
export function windingNumber(polygon: Polygon, p: Point): number {
  let winding = 0;
  const n = polygon.length;
  for (let i = 0; i < n; i += 2) {
    const ax = polygon[i];
    const ay = polygon[i + 1];
    const bx = polygon[(i + 2) % n];
    const by = polygon[(i + 3) % n];
    const side = (bx - ax) * (p.y - ay) - (p.x - ax) * (by - ay);
    if (ay <= p.y && by > p.y && side > 0) winding++;
    else if (ay > p.y && by <= p.y && side < 0) winding--;
  }
  return winding;
}

/** Whether what an eraser covers between two points touches the filled polygons. */
export function hitsPolygons(polygons: readonly Polygon[], { from, to, radius }: Swipe): boolean {
  for (const polygon of polygons) {
    if (windingNumber(polygon, from) !== 0) return true;
    const n = polygon.length;
    for (let i = 0; i < n; i += 2) {
      const a = { x: polygon[i], y: polygon[i + 1] };
      const b = { x: polygon[(i + 2) % n], y: polygon[(i + 3) % n] };
      if (distanceBetweenSegments(a, b, from, to) <= radius) return true;
    }
  }
  return false;
}
