import { indexOf, type Annotation } from '@stylet/core/document';
import type { Box, Nearby } from '@stylet/core/geometry';
import type { Polygon } from '@stylet/core/ink';
import { liesUnder } from '@stylet/core/paint';
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
    if (annotation.kind === 'ink' && !liesUnder(annotation)) yield polygonsOf(annotation);
  }
}
