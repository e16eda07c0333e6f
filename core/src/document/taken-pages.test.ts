import { applyAll } from './draft';
import { newId } from './ids';
import type { Bookmark, Keyword, OutlineEntry } from './landmark';
import { outlineTree, type OutlineNode } from './outline-tree';
import { pageOrders, pagesInOrder, standingFor, type DocumentPage } from './page';
import { documentState, type DocumentState } from './state';
import { takePages, type PageSupply } from './taken-pages';

const NOW = '2026-09-01T08:00:00.000Z';
const [OWN, OTHER] = ['a'.repeat(64), 'b'.repeat(64)];

/** Pages of a file, and an outline of titles: each at a page and so deep. */
function state(
  title: string,
  source: string,
  count: number,
  outline: readonly [string, number, number][],
): DocumentState {
  const orders = pageOrders([], 0, count);
  const pages = orders.map((order, i): DocumentPage => ({
    id: newId(),
    order,
    width: 100,
    height: 200,
    rotation: 0,
    label: null,
    source,
    sourceIndex: i,
    hasMarks: false,
  }));
  const above: OutlineEntry[] = [];
  const entries = outline.map(([name, page, depth], i): OutlineEntry => {
    const entry: OutlineEntry = {
      kind: 'outline',
      id: newId(),
      order: `a${i}`,
      title: name,
      open: true,
      place: { pageId: pages[page].id, y: 10 },
      origin: { object: 100 + i, generation: 0 },
      ...(depth > 0 ? { parentId: above[depth - 1].id } : {}),
    };
    above.splice(depth, above.length, entry);
    return entry;
  });
  return documentState(title, [], entries, pages);
}

const supplyOf = (of: DocumentState, documentId?: string): PageSupply => ({
  state: of,
  source: OTHER,
  documentId,
});

/** An outline in words: what is under an entry in brackets. */
const words = (nodes: readonly OutlineNode[]): string =>
  nodes
    .map(({ entry, children }) => `${entry.title}${children.length ? ` (${words(children)})` : ''}`)
    .join(', ');

function takenInto(into: DocumentState, supply: PageSupply, pages: readonly number[], at: number) {
  const there = pagesInOrder(supply.state.pages);
  const ids = new Set(pages.map((i) => there[i].id));
  const { effects, copies } = takePages(supply, ids, into, at, NOW);
  return { after: applyAll(into, effects), copies };
}

const mine = state('Mine', OWN, 4, [
  ['One', 0, 0],
  ['Two', 2, 0],
]);
const book = state('Book', OTHER, 5, [
  ['Part', 0, 0],
  ['A', 1, 1],
  ['A.1', 1, 2],
  ['B', 3, 1],
  ['Index', 4, 0],
]);

test('pages stand where they were put, in their order, and name their file', () => {
  const { after } = takenInto(mine, supplyOf(book), [1, 3], 2);
  expect(
    pagesInOrder(after.pages).map(({ source, sourceIndex }) => `${source[0]}${sourceIndex}`),
  ).toEqual(['a0', 'a1', 'b1', 'b3', 'a2', 'a3']);
});

test('entries of the outline go along with their pages, under those that go along as well', () => {
  const { after, copies } = takenInto(mine, supplyOf(book), [1, 3], 2);
  expect(words(outlineTree(after.landmarks))).toBe('One, A (A.1), B, Two');
  const a = Object.values(after.landmarks).find((l) => l.kind === 'outline' && l.title === 'A');
  expect(a).toMatchObject({ place: { pageId: copies[0], y: 10 } });
  // They are written anew: their objects are those of another file.
  expect(a).not.toHaveProperty('origin');
});

test('a whole supply goes under its title; one without a title brings its entries alone', () => {
  const all = [0, 1, 2, 3, 4];
  const merged = takenInto(mine, supplyOf(book), all, 4).after;
  expect(words(outlineTree(merged.landmarks))).toBe('One, Two, Book (Part (A (A.1), B), Index)');
  const plain = takenInto(mine, supplyOf({ ...book, title: '' }), all, 0).after;
  expect(words(outlineTree(plain.landmarks))).toBe('Part (A (A.1), B), Index, One, Two');
});

test('bookmarks and keywords go along', () => {
  const [page] = pagesInOrder(book.pages);
  const bookmark: Bookmark = {
    kind: 'bookmark',
    id: newId(),
    place: { pageId: page.id },
    title: 'Here',
    created: NOW,
  };
  const keyword: Keyword = {
    kind: 'keyword',
    id: newId(),
    place: { pageId: page.id },
    word: 'swell',
    created: NOW,
  };
  const marked = {
    ...book,
    landmarks: { ...book.landmarks, [bookmark.id]: bookmark, [keyword.id]: keyword },
  };
  const { after, copies } = takenInto(mine, supplyOf(marked), [0], 0);
  const there = Object.values(after.landmarks).filter(({ kind }) => kind !== 'outline');
  expect(there.map(({ kind, place }) => [kind, place?.pageId]).sort()).toEqual([
    ['bookmark', copies[0]],
    ['keyword', copies[0]],
  ]);
});

test('of pages of several files each stands for its own', () => {
  const { after } = takenInto(mine, supplyOf(book), [0, 1], 0);
  const pages = pagesInOrder(after.pages);
  expect(standingFor(pages, { source: OTHER, sourceIndex: 1 })).toBe(1);
  expect(standingFor(pages, { source: OWN, sourceIndex: 1 })).toBe(3);
  expect(standingFor(pages, { source: OTHER, sourceIndex: 2 })).toBeUndefined();
});
