import type { Annotation, Landmark, Place } from '../document/index';
import type { HitKind } from './ranking';

/** Something in a document that is called something, or says something, besides the words of its pages. */
export interface Named {
  readonly kind: Exclude<HitKind, 'text' | 'title'>;
  /** Of the landmark or the annotation. */
  readonly itemId: string;
  readonly place: Place | null;
  readonly text: string;
}

/** What is found of landmarks and annotations. Marks on text say what stands under them, which is found on the page. */
export function namedAmong(
  landmarks: readonly Landmark[],
  annotations: readonly Annotation[],
): Named[] {
  return [...landmarks.map(ofLandmark), ...annotations.flatMap(ofAnnotation)].filter(
    ({ text }) => text.trim() !== '',
  );
}

const ofLandmark = (landmark: Landmark): Named => ({
  kind: landmark.kind,
  itemId: landmark.id,
  place: landmark.place ?? null,
  text: landmark.kind === 'keyword' ? landmark.word : landmark.title,
});

function ofAnnotation(annotation: Annotation): Named[] {
  const { id: itemId, pageId } = annotation;
  if (annotation.kind === 'link' && 'address' in annotation.target) {
    const [x, y] = annotation.quads[0];
    const { address: text } = annotation.target;
    return [{ kind: 'address', itemId, place: { pageId, x, y }, text }];
  }
  if (annotation.kind === 'ink' || annotation.kind === 'shape')
    return annotation.contents
      ? [{ kind: 'contents', itemId, place: { pageId }, text: annotation.contents }]
      : [];
  if (annotation.kind !== 'foreign') return [];
  const { x0: x, y0: y } = annotation.box;
  return [{ kind: 'contents', itemId, place: { pageId, x, y }, text: annotation.contents }];
}
