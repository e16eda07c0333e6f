import { v5 } from 'uuid';
import { generateNKeysBetween } from 'fractional-indexing';
import {
  newId,
  paintingOrder,
  pageOrders,
  type DocumentPage,
  type Effect,
  type Landmark,
  type Landmarks,
  type OutlineEntry,
  type Page,
  type PageAnnotations,
} from '../document/index';
import { boundsOf } from '../geometry/index';
import { areasOf } from '../paint/index';
import { toldParagraph } from '../typed/index';
import { Following, type LaidText } from './follow';

/** A document whose text is set again. */
export interface Retyped {
  readonly id: string;
  /** In order. */
  readonly pages: readonly (Page & { readonly label: string | null })[];
  readonly annotations: Readonly<Record<string, PageAnnotations>>;
  readonly landmarks: Landmarks;
}

/**
 * What is done to a document whose text has become another one, in the file `to` instead of `from`: its pages become those
 * of that file, what lies on them stays with its words, and headings are its outline.
 */
export function effectsOfText(
  document: Retyped,
  before: LaidText,
  after: LaidText,
  { from, to }: { readonly from: string; readonly to: string },
): Effect[] {
  const typed = typedPages(document, from);
  const pages = newPages(document, typed, after, to);
  const gone = [...typed.values()].filter(({ sourceIndex }) => sourceIndex >= pages.length);
  const ids = pages.map(({ id }) => id);
  const following = new Following(before, after);
  return [
    ...pages.map((page): Effect => ({ type: 'page.add', page })),
    ...movedAnnotations(document, typed, ids, following),
    ...movedLandmarks(document.landmarks, typed, ids, following),
    ...outlineEffects(document, after, ids),
    ...gone.map(({ id }): Effect => ({ type: 'page.remove', pageId: id })),
  ];
}

/** The pages of the text by their place in it: of several copies the first. */
function typedPages({ pages }: Retyped, source: string): ReadonlyMap<number, Page> {
  const typed = new Map<number, Page>();
  for (const page of pages)
    if (page.source === source && !typed.has(page.sourceIndex)) typed.set(page.sourceIndex, page);
  return typed;
}

function newPages(
  { pages }: Retyped,
  typed: ReadonlyMap<number, Page>,
  { text: { setup }, pages: { pages: laid } }: LaidText,
  source: string,
): DocumentPage[] {
  const facts = { width: rounded(setup.width), height: rounded(setup.height), source };
  const there: DocumentPage[] = [];
  laid.forEach((_, sourceIndex) => {
    const page = typed.get(sourceIndex);
    if (page) there.push({ ...withoutLabel(page), ...facts, sourceIndex, hasMarks: false });
  });
  const missing = laid.flatMap((_, i) => (typed.has(i) ? [] : [i]));
  const last = there.at(-1);
  const at = last ? pages.findIndex(({ id }) => id === last.id) + 1 : pages.length;
  const orders = pageOrders(pages, at, missing.length);
  const coming = missing.map((sourceIndex, i): DocumentPage => ({
    id: newId(),
    order: orders[i],
    rotation: 0,
    label: null,
    ...facts,
    sourceIndex,
    hasMarks: false,
  }));
  return [...there, ...coming].sort((a, b) => a.sourceIndex - b.sourceIndex);
}

/** Typed pages are called by where they stand. */
const withoutLabel = ({
  label: _label,
  ...page
}: Page): Omit<DocumentPage, 'label'> & {
  label: null;
} => ({ ...page, label: null });

/** As `typedPdf` writes sizes. */
const rounded = (value: number): number => Math.round(value * 1000) / 1000;

function movedAnnotations(
  { annotations }: Retyped,
  typed: ReadonlyMap<number, Page>,
  ids: readonly string[],
  following: Following,
): Effect[] {
  const effects: Effect[] = [];
  const now = new Date().toISOString();
  for (const [index, { id }] of typed)
    for (const annotation of paintingOrder(annotations[id] ?? {})) {
      const corners = areasOf(annotation).flatMap((area) => pointsOf(area));
      const box = boundsOf(corners);
      const moved = box && following.annotation(annotation, index, box);
      const pageId = moved && ids[moved.page];
      if (pageId === undefined) continue;
      effects.push({
        type: 'annotation.add',
        annotation: { ...moved!.annotation, pageId, modified: now },
      });
    }
  return effects;
}

const pointsOf = (area: ArrayLike<number>): { x: number; y: number }[] =>
  Array.from({ length: area.length >> 1 }, (_, i) => ({ x: area[2 * i], y: area[2 * i + 1] }));

/** Bookmarks and keywords go with the words beside them. */
function movedLandmarks(
  landmarks: Landmarks,
  typed: ReadonlyMap<number, Page>,
  ids: readonly string[],
  following: Following,
): Effect[] {
  const indices = new Map([...typed].map(([index, { id }]) => [id, index]));
  return Object.values(landmarks).flatMap((landmark): Effect[] => {
    if (landmark.kind === 'outline' || landmark.place.y === undefined) return [];
    const { pageId, x = 0, y } = landmark.place;
    const page = indices.get(pageId);
    const to = page === undefined ? undefined : following.moved({ page, at: { x, y } });
    const id = to && ids[to.page];
    if (!to || id === undefined || (id === pageId && Math.abs(to.at.y - y) < 0.01)) return [];
    const place = { ...landmark.place, pageId: id, y: to.at.y };
    return [{ type: 'landmark.change', landmarkId: landmark.id, fields: { place } }];
  });
}

/** Entries that came with a file, or are those of headings, are those of the headings now; what people have made stays. */
function outlineEffects(
  { id, landmarks }: Retyped,
  after: LaidText,
  ids: readonly string[],
): Effect[] {
  const entries = Object.values(landmarks).filter(
    (one): one is OutlineEntry => one.kind === 'outline',
  );
  const headings = headingEntries(id, after, ids);
  const wanted = new Map(headings.map((entry) => [entry.id, entry]));
  const isOfText = (entry: OutlineEntry): boolean =>
    entry.origin !== undefined || HEADING.test(entry.id);
  const gone = entries.filter((entry) => isOfText(entry) && !wanted.has(entry.id));
  const there = new Map<string, Landmark>(entries.map((entry) => [entry.id, entry]));
  return [
    ...headings.flatMap((entry): Effect[] =>
      JSON.stringify(sorted(there.get(entry.id))) === JSON.stringify(sorted(entry))
        ? []
        : [{ type: 'landmark.add', landmark: entry }],
    ),
    ...gone.map((entry): Effect => ({ type: 'landmark.remove', landmarkId: entry.id })),
  ];
}

const sorted = (value: object | undefined): unknown =>
  value && Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));

/** Ids of headings' entries are of version 5; those that people make are of version 7 (RFC 9562, 4.2). */
const HEADING = /^[0-9a-f]{8}-[0-9a-f]{4}-5/;

function headingEntries(
  documentId: string,
  { text, pages: { headings } }: LaidText,
  ids: readonly string[],
): OutlineEntry[] {
  const orders = generateNKeysBetween(null, null, headings.length);
  const above: { level: number; id: string }[] = [];
  return headings.flatMap(({ block, level, page, y }, i): OutlineEntry[] => {
    const heading = text.blocks[block];
    if (heading.kind !== 'paragraph') return [];
    const title = toldParagraph(heading).replace(/\s+/g, ' ').trim();
    if (title === '') return [];
    while (above.length > 0 && above[above.length - 1].level >= level) above.pop();
    const parentId = above.at(-1)?.id;
    const id = v5(`heading ${heading.id ?? block}`, documentId);
    above.push({ level, id });
    return [
      {
        kind: 'outline',
        id,
        ...(parentId === undefined ? {} : { parentId }),
        order: orders[i],
        title: title.slice(0, 2000),
        place: { pageId: ids[page], x: 0, y: Math.round(y) },
        open: true,
      },
    ];
  });
}
