import { indexOf, stratumOf, type Annotation } from '@stylet/core/document';
import { boxOf, grow, type Box, type Nearby, type Point } from '@stylet/core/geometry';
import { hitsPolygons, type Polygon } from '@stylet/core/ink';
import { polygonsOf } from './drawing';

/** Pages are immutable, so where things are on one is worked out once. */
const indexes = new WeakMap<readonly Annotation[], Nearby>();

/** Where a page's annotations are, by their places in the list. */
export function indexFor(annotations: readonly Annotation[]): Nearby {
  let index = indexes.get(annotations);
  if (!index) indexes.set(annotations, (index = indexOf(annotations, polygonsOf)));
  return index;
}

/** The ink near a box that lies over the words, as the polygons of each stroke. */
export function* strokesNear(
  annotations: readonly Annotation[],
  box: Box,
): Generator<readonly Polygon[]> {
  for (const i of indexFor(annotations).find(box)) {
    const annotation = annotations[i];
    if (annotation.kind === 'ink' && stratumOf(annotation) === 'over') yield polygonsOf(annotation);
  }
}

/** The uppermost annotation, of those wanted, within so many points of a point (page space). */
export function uppermostAt(
  annotations: readonly Annotation[],
  at: Point,
  radius: number,
  isWanted: (annotation: Annotation) => boolean = () => true,
): Annotation | undefined {
  return indexFor(annotations)
    .find(grow(boxOf(at, at), radius))
    .sort((a, b) => b - a)
    .map((i) => annotations[i])
    .find((a) => isWanted(a) && hitsPolygons(polygonsOf(a), { from: at, to: at, radius }));
}
