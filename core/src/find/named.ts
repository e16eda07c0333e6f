import {
  asked,
  wordsOf,
  type Annotation,
  type Facet,
  type Landmark,
  type Markup,
  type Place,
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
  const among = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  return [
    ...landmarks.map(ofLandmark),
    ...annotations.flatMap((annotation) => asked(names, annotation, among)),
  ].filter(({ text }) => text.trim() !== '');
}

const ofLandmark = (landmark: Landmark): Named => ({
  kind: landmark.kind,
  itemId: landmark.id,
  place: landmark.place ?? null,
  text: landmark.kind === 'keyword' ? landmark.word : landmark.title,
});

/** Where on its page an annotation is, as far as it says that itself; a reply is where that is which it answers. */
function placeOf(annotation: Annotation, among: ReadonlyMap<string, Annotation>): Place {
  const { pageId } = annotation;
  let at: Annotation | undefined = annotation;
  for (let i = 0; at?.kind === 'reply' && i <= among.size; i++) at = among.get(at.to);
  if (!at) return { pageId };
  if ('quads' in at) return { pageId, x: at.quads[0][0], y: at.quads[0][1] };
  if (at.kind === 'note') return { pageId, ...at.at };
  if (at.kind === 'foreign') return { pageId, x: at.box.x0, y: at.box.y0 };
  if (at.kind === 'textBox' || at.kind === 'picture')
    return { pageId, x: at.transform[4], y: at.transform[5] };
  return { pageId };
}

type Among = ReadonlyMap<string, Annotation>;

/** What somebody has written into an annotation. */
const said =
  <A extends Annotation>(words: (annotation: A) => string | undefined) =>
  (annotation: A, among: Among): Named[] => [
    {
      kind: 'contents',
      itemId: annotation.id,
      place: placeOf(annotation, among),
      text: words(annotation) ?? '',
    },
  ];
const nothing = (): Named[] => [];
const ofMarkup = said<Markup>(({ remark }) => remark);

const names: Facet<Named[], [Among]> = {
  ink: said(({ contents }) => contents),
  shape: said(({ contents }) => contents),
  highlight: ofMarkup,
  underline: ofMarkup,
  strikeout: ofMarkup,
  picture: nothing,
  textBox: said(wordsOf),
  link: (link, among) =>
    'address' in link.target
      ? [
          {
            kind: 'address',
            itemId: link.id,
            place: placeOf(link, among),
            text: link.target.address,
          },
        ]
      : [],
  note: said(wordsOf),
  reply: said(wordsOf),
  foreign: said(wordsOf),
};
