import { generateNKeysBetween } from 'fractional-indexing';
import { changed, newId, transformedFields, type Annotation } from '../document/index';
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
  const groups = new Map<string, string>();
  const now = new Date().toISOString();
  return own.map((annotation, i) => {
    const { origin: _origin, group, locked: _locked, ...rest } = annotation;
    if (group && !groups.has(group)) groups.set(group, newId());
    const copy = {
      ...rest,
      id: newId(),
      pageId: place.pageId,
      order: keys[i],
      created: now,
      modified: now,
      ...(group ? { group: groups.get(group)! } : {}),
    } as Annotation;
    return changed(copy, transformedFields(copy, place.matrix) ?? {});
  });
}
