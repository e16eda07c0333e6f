import type { Landmark, Landmarks } from './landmark';
import { outlineTree, type OutlineNode } from './outline-tree';
import type { DocumentState } from './state';

const present = new WeakMap<
  Landmarks,
  { readonly pages: Readonly<Record<string, unknown>>; readonly landmarks: Landmarks }
>();

/**
 * The landmarks of pages that are there: what is removed with its page comes back with it. An entry of the
 * outline whose page is gone stays, leading nowhere, where others under it still lead somewhere.
 */
export function presentLandmarks(
  landmarks: Landmarks,
  pages: Readonly<Record<string, unknown>>,
): Landmarks {
  const known = present.get(landmarks);
  if (known?.pages === pages) return known.landmarks;
  const isAway = (landmark: Landmark): boolean =>
    landmark.place !== undefined && !pages[landmark.place.pageId];
  let result = landmarks;
  if (Object.values(landmarks).some(isAway)) {
    const staying: Record<string, Landmark> = {};
    for (const landmark of Object.values(landmarks))
      if (landmark.kind !== 'outline' && !isAway(landmark)) staying[landmark.id] = landmark;
    const keep = ({ entry, children }: OutlineNode): boolean => {
      const hasKept = children.map(keep).includes(true);
      if (!isAway(entry)) staying[entry.id] = entry;
      else if (hasKept) staying[entry.id] = { ...entry, place: undefined };
      return entry.id in staying;
    };
    outlineTree(landmarks).forEach(keep);
    result = staying;
  }
  present.set(landmarks, { pages, landmarks: result });
  return result;
}

/** The annotations of pages that are there, by page. */
export function presentAnnotations({
  annotations,
  pages,
}: Pick<DocumentState, 'annotations' | 'pages'>): DocumentState['annotations'] {
  const away = Object.keys(annotations).filter((pageId) => !pages[pageId]);
  if (away.length === 0) return annotations;
  const copy = Object.assign({}, annotations);
  for (const pageId of away) Reflect.deleteProperty(copy, pageId);
  return copy;
}
