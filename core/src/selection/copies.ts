import { generateNKeysBetween } from 'fractional-indexing';
import {
  changed,
  newGroups,
  newId,
  transformedFields,
  withReferences,
  type Annotation,
  type Place,
} from '../document/index';
import type { Matrix } from '../geometry/index';

/** Where copies go: onto a page, above what is there, mapped from where the originals were. */
export interface CopyPlace {
  readonly pageId: string;
  /** The uppermost painting order there, if there is anything. */
  readonly above: string | undefined;
  readonly matrix: Matrix;
}

/**
 * Copies of annotations, given in painting order, with ids and groups of their own. Those of other
 * programs live in their file and cannot be copied: they are left out.
 */
export function copiesOf(annotations: readonly Annotation[], place: CopyPlace): Annotation[] {
  const own = annotations.filter(({ kind }) => kind !== 'foreign');
  const keys = generateNKeysBetween(place.above ?? null, null, own.length);
  const copyOf = new Map(own.map(({ id }) => [id, newId()]));
  const references = {
    group: newGroups(newId),
    place: (place: Place) => ({ place }),
    annotation: (id: string) => copyOf.get(id) ?? id,
  };
  const now = new Date().toISOString();
  return own.map((annotation, i) => {
    const { origin: _origin, locked: _locked, ...rest } = annotation;
    const copy = {
      ...withReferences(rest as Annotation, references, now),
      id: copyOf.get(annotation.id)!,
      pageId: place.pageId,
      order: keys[i],
      created: now,
      modified: now,
    } as Annotation;
    return changed(copy, transformedFields(copy, place.matrix) ?? {});
  });
}
