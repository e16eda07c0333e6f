import type { Page } from '@stylet/core/api';
import {
  colorOf,
  annotationSorts,
  liesOnPage,
  paintingOrder,
  sortOf,
  threadsOn,
  wordsOf,
  writingsAmong,
  type Annotation,
  type AnnotationSort,
  type Landmark,
  type Landmarks,
  type OutlineNode,
  type PageAnnotations,
  type Place,
  type Thread,
  type Writing,
} from '@stylet/core/document';
import { pageView, transform } from '@stylet/core/geometry';
import { boundsOfAnnotation } from '../../platform/paper/drawing';

/** What the Index lists. */
export const indexKinds = ['outline', 'bookmark', 'keyword', ...annotationSorts] as const;
export type IndexKind = Landmark['kind'] | AnnotationSort;

/** A line of the Index: where it leads, and its words or the ink it stands for. */
export interface IndexRow {
  readonly key: string;
  readonly kind: IndexKind;
  readonly place: Place | undefined;
  readonly pageIndex: number;
  /** How far down its page, as shown. */
  readonly down: number;
  readonly label: string;
  readonly words: string;
  readonly depth: number;
  readonly color?: string | undefined;
  readonly landmark?: Landmark;
  readonly node?: OutlineNode;
  readonly isOpen?: boolean;
  /** Handwriting and pictures show themselves. */
  readonly writing?: Writing;
  readonly annotations?: readonly Annotation[];
  /** What was said to it. */
  readonly thread?: Thread;
}

export interface IndexContents {
  readonly pages: readonly Page[];
  readonly tree: readonly OutlineNode[];
  readonly landmarks: Landmarks;
  readonly annotations: Readonly<Record<string, PageAnnotations>>;
}

/** What is on a page, listed where that page is now. */
interface Listed {
  readonly page: Page;
  readonly index: number;
  readonly rows: readonly IndexRow[];
}

/** Pages are immutable, so what is written on one is worked out once. */
const known = new WeakMap<PageAnnotations, Listed>();
/** Pieces of writing on a page, which stay as they are as long as its ink does. */
const written = new WeakMap<Page, { readonly ink: readonly Annotation[]; found: Writing[] }>();

/** All rows, in page order; those of the outline in its own. */
export function rowsOf(
  { pages, tree, landmarks, annotations }: IndexContents,
  kinds: ReadonlySet<IndexKind>,
  isOpen: (node: OutlineNode) => boolean,
): IndexRow[] {
  const indexes = new Map(pages.map(({ id }, i) => [id, i]));
  const placed = placing(pages, indexes);
  const others: IndexRow[] = [];
  for (const landmark of Object.values(landmarks)) {
    if (landmark.kind === 'outline' || !kinds.has(landmark.kind)) continue;
    others.push(landmarkRow(landmark, placed, annotations));
  }
  const wantsAnnotations = [...kinds].some(
    (kind) => kind !== 'outline' && kind !== 'bookmark' && kind !== 'keyword',
  );
  if (wantsAnnotations)
    pages.forEach((page, index) => {
      const on = annotations[page.id];
      if (!on) return;
      for (const row of annotationRows(on, page, index, placed))
        if (kindsOf(row).some((kind) => kinds.has(kind))) others.push(row);
    });
  others.sort(byPlace);
  return kinds.has('outline') ? merged(outlineRows(tree, placed, isOpen), others) : others;
}

/** Every row there is, whatever is folded. */
export const allRowsOf = (contents: IndexContents): IndexRow[] =>
  rowsOf(contents, new Set(indexKinds), () => true);

/** How many rows there are of each kind. */
export function countsOf(rows: readonly IndexRow[]): Map<IndexKind, number> {
  const counts = new Map<IndexKind, number>();
  for (const row of rows)
    for (const kind of kindsOf(row)) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return counts;
}

/** What a row is listed as: what was said to something is a note as well. */
export const kindsOf = ({ kind, thread }: IndexRow): readonly IndexKind[] =>
  thread && kind !== 'notes' ? [kind, 'notes'] : [kind];

type Placing = (
  place: Place | undefined,
) => Pick<IndexRow, 'pageIndex' | 'down' | 'label' | 'place'>;

function placing(pages: readonly Page[], indexes: ReadonlyMap<string, number>): Placing {
  return (place) => {
    const pageIndex = place ? (indexes.get(place.pageId) ?? Infinity) : -1;
    const page = pages[pageIndex];
    if (!page || !place) return { pageIndex, down: 0, label: '', place: undefined };
    const { width, height, rotation } = page;
    const at = transform(pageView(width, height, rotation, 1), {
      x: place.x ?? 0,
      y: place.y ?? 0,
    });
    return { pageIndex, down: place.y === undefined ? -1 : at.y, label: page.label, place };
  };
}

/** Thousands of them: written into one list, field by field, for copies take their time. */
function outlineRows(
  nodes: readonly OutlineNode[],
  placed: Placing,
  isOpen: (node: OutlineNode) => boolean,
  depth = 0,
  rows: IndexRow[] = [],
): IndexRow[] {
  for (const node of nodes) {
    const { entry, children } = node;
    const open = isOpen(node);
    const { place, pageIndex, down, label } = placed(entry.place);
    rows.push({
      key: entry.id,
      kind: 'outline',
      place,
      pageIndex,
      down,
      label,
      words: entry.title,
      depth,
      landmark: entry,
      node,
      isOpen: open,
    });
    if (open) outlineRows(children, placed, isOpen, depth + 1, rows);
  }
  return rows;
}

function landmarkRow(
  landmark: Exclude<Landmark, { kind: 'outline' }>,
  placed: Placing,
  annotations: IndexContents['annotations'],
): IndexRow {
  const common = { key: landmark.id, ...placed(landmark.place), depth: 0, landmark };
  if (landmark.kind === 'bookmark')
    return { ...common, kind: 'bookmark', words: landmark.title, color: landmark.color };
  const page = annotations[landmark.place.pageId];
  const face = landmark.annotationIds?.flatMap((id) => page?.[id] ?? []) ?? [];
  const [writing] = writingsAmong(face, boundsOfAnnotation);
  return {
    ...common,
    kind: 'keyword',
    words: landmark.word,
    ...(writing ? { writing: { ...writing, annotations: face } } : {}),
  };
}

function annotationRows(
  on: PageAnnotations,
  page: Page,
  index: number,
  placed: Placing,
): readonly IndexRow[] {
  const listed = known.get(on);
  // What is listed says where its page stands and what that is called.
  if (listed?.page === page && listed.index === index) return listed.rows;
  const rows = rowsOn(on, page, placed);
  known.set(on, { page, index, rows });
  return rows;
}

/** Handwriting a piece at a time, and everything else by itself. */
function rowsOn(on: PageAnnotations, page: Page, placed: Placing): IndexRow[] {
  const all = paintingOrder(on).filter(liesOnPage);
  const threads = new Map(threadsOn(on).map((thread) => [thread.root.id, thread]));
  const writings = writingsOn(page, all).map((writing): IndexRow => {
    const [first] = writing.annotations;
    const { x0, y0 } = writing.box;
    return {
      key: first.id,
      kind: 'ink',
      ...placed({ pageId: first.pageId, x: x0, y: y0 }),
      words: writing.annotations.map(wordsOn).filter(Boolean).join(' '),
      depth: 0,
      writing,
      annotations: writing.annotations,
      ...threaded(writing.annotations.flatMap(({ id }) => threads.get(id) ?? [])),
    };
  });
  const others = all
    .filter((a) => sortOf(a) !== 'ink')
    .map((a) => ({ ...annotationRow(a, placed), ...threaded([threads.get(a.id)]) }));
  return [...writings, ...others];
}

const threaded = ([thread]: readonly (Thread | undefined)[]): Pick<IndexRow, 'thread'> =>
  thread ? { thread } : {};

function writingsOn(page: Page, all: readonly Annotation[]): readonly Writing[] {
  const ink = all.filter((a) => sortOf(a) === 'ink');
  const before = written.get(page);
  if (before?.ink.length === ink.length && ink.every((one, i) => one === before.ink[i]))
    return before.found;
  const found = writingsAmong(ink, boundsOfAnnotation);
  written.set(page, { ink, found });
  return found;
}

/** What an annotation says in words, in one line. */
const wordsOn = (annotation: Annotation): string => wordsOf(annotation).replace(/\s+/g, ' ').trim();

function annotationRow(annotation: Annotation, placed: Placing): IndexRow {
  const box = boundsOfAnnotation(annotation);
  const words = wordsOn(annotation);
  const showsItself = words === '' || annotation.kind === 'picture';
  return {
    key: annotation.id,
    kind: sortOf(annotation),
    ...placed({ pageId: annotation.pageId, x: box?.x0 ?? 0, y: box?.y0 ?? 0 }),
    words,
    depth: 0,
    color: colorOf(annotation),
    annotations: [annotation],
    ...(showsItself && box && annotation.kind !== 'foreign' && annotation.kind !== 'link'
      ? { writing: { annotations: [annotation], box } }
      : {}),
  };
}

const byPlace = (a: IndexRow, b: IndexRow): number =>
  a.pageIndex - b.pageIndex || a.down - b.down || (a.key < b.key ? -1 : 1);

/** Each of the others goes before the first entry that lies behind it. */
function merged(outline: readonly IndexRow[], others: readonly IndexRow[]): IndexRow[] {
  const rows: IndexRow[] = [];
  let next = 0;
  for (const entry of outline) {
    while (
      next < others.length &&
      entry.pageIndex >= 0 &&
      (others[next].pageIndex < entry.pageIndex ||
        (others[next].pageIndex === entry.pageIndex && others[next].down < entry.down))
    )
      rows.push(others[next++]);
    rows.push(entry);
  }
  return [...rows, ...others.slice(next)];
}
