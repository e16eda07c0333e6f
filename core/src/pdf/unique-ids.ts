import type { Annotation, Ids, Landmark } from '../document/index';

/**
 * Annotations and landmarks of a file with ids that stand once: a page that another program copied, or a file that
 * was merged with itself, has them twice. The first keeps its id; keywords of a copied page hang on the copies.
 */
export function withUniqueIds(
  annotations: readonly Annotation[],
  landmarks: readonly Landmark[],
  ids: Ids,
): { readonly annotations: Annotation[]; readonly landmarks: Landmark[] } {
  const taken = new Set<string>();
  /** What ids became on each page, where they are not what they were. */
  const onPage = new Map<string, Map<string, string>>();
  const groups = new Map<string, Map<string, string>>();
  const firstPageOf = new Map<string, string>();
  const unique = annotations.map((annotation) => {
    const { id, pageId, group } = annotation;
    const own = fresh(id, taken, () => ids('annotation'));
    if (own !== id) entry(onPage, pageId).set(id, own);
    return {
      ...annotation,
      id: own,
      ...(group === undefined ? {} : { group: groupOn(pageId, group) }),
    };
  });
  function groupOn(pageId: string, group: string): string {
    const first = firstPageOf.get(group);
    if (first === undefined) firstPageOf.set(group, pageId);
    if (first === undefined || first === pageId) return group;
    const here = entry(groups, pageId);
    const known = here.get(group) ?? ids('group');
    here.set(group, known);
    return known;
  }
  const marks = new Set<string>();
  return {
    annotations: unique.map((annotation) => {
      if (annotation.kind !== 'reply') return annotation;
      const to = onPage.get(annotation.pageId)?.get(annotation.to);
      return to === undefined ? annotation : { ...annotation, to };
    }),
    landmarks: landmarks.map((landmark) => {
      const id = fresh(landmark.id, marks, () => ids('landmark'));
      if (landmark.kind !== 'keyword' || !landmark.annotationIds) return { ...landmark, id };
      const here = onPage.get(landmark.place.pageId);
      const annotationIds = landmark.annotationIds.map((one) => here?.get(one) ?? one);
      return { ...landmark, id, annotationIds };
    }),
  };
}

function fresh(id: string, taken: Set<string>, other: () => string): string {
  const own = taken.has(id) ? other() : id;
  taken.add(own);
  return own;
}

function entry(maps: Map<string, Map<string, string>>, key: string): Map<string, string> {
  const known = maps.get(key) ?? new Map<string, string>();
  maps.set(key, known);
  return known;
}
