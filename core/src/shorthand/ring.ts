import { enclosedBy, type Annotation } from '../document/index';
import type { Point } from '../geometry/index';
import { closedWay, lengthOf } from '../shapes/index';
import { areaOf, type Polygon } from '../ink/index';

/** How full a ring is at least: 1 for a circle, 4 π times its area by the square of its length. */
const FULL = 0.3;

/** The annotations a closed stroke goes round; none when it is no ring, or goes round none. */
export function ringed(
  way: readonly Point[],
  annotations: readonly Annotation[],
  outlinesOf: (annotation: Annotation) => readonly Polygon[],
): Annotation[] {
  const region = ringOf(way);
  return region ? enclosedBy(region, annotations, { outlinesOf }) : [];
}

/** What a closed stroke goes round, in page space; undefined when it is no ring. */
export function ringOf(way: readonly Point[]): Polygon | undefined {
  const closed = closedWay(way);
  if (!closed) return undefined;
  const polygon = Float64Array.from(closed.flatMap(({ x, y }) => [x, y]));
  const length = lengthOf([...closed, closed[0]]);
  const full = (4 * Math.PI * Math.abs(areaOf(polygon))) / (length * length);
  return full >= FULL ? polygon : undefined;
}
