import {
  asked,
  wordsOf,
  wordsOfBox,
  type Annotation,
  type Facet,
  type Ink,
  type Landmark,
  type Place,
  type ShapeAnnotation,
} from '../document/index';
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
  return [
    ...landmarks.map(ofLandmark),
    ...annotations.flatMap((annotation) => asked(names, annotation)),
  ].filter(({ text }) => text.trim() !== '');
}

const ofLandmark = (landmark: Landmark): Named => ({
  kind: landmark.kind,
  itemId: landmark.id,
  place: landmark.place ?? null,
  text: landmark.kind === 'keyword' ? landmark.word : landmark.title,
});

const remarked = ({ id: itemId, pageId, contents }: Ink | ShapeAnnotation): Named[] =>
  contents ? [{ kind: 'contents', itemId, place: { pageId }, text: contents }] : [];

const names: Facet<Named[]> = {
  ink: remarked,
  shape: remarked,
  highlight: () => [],
  underline: () => [],
  strikeout: () => [],
  picture: () => [],
  textBox: ({ id: itemId, pageId, transform, ...box }) => {
    const [, , , , x, y] = transform;
    return [{ kind: 'contents', itemId, place: { pageId, x, y }, text: wordsOfBox(box) }];
  },
  link: ({ id: itemId, pageId, quads, target }) => {
    if (!('address' in target)) return [];
    const [x, y] = quads[0];
    return [{ kind: 'address', itemId, place: { pageId, x, y }, text: target.address }];
  },
  note: ({ at, ...note }) => [
    {
      kind: 'contents',
      itemId: note.id,
      place: { pageId: note.pageId, ...at },
      text: wordsOf({ at, ...note }),
    },
  ],
  reply: (reply) => [
    { kind: 'contents', itemId: reply.id, place: { pageId: reply.pageId }, text: wordsOf(reply) },
  ],
  foreign: ({ id: itemId, pageId, box, contents: text }) => [
    { kind: 'contents', itemId, place: { pageId, x: box.x0, y: box.y0 }, text },
  ],
};
