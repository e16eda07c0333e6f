import type { Page } from '@stylet/core/api';
import {
  documentState,
  newId,
  outlineTree,
  type Annotation,
  type Landmark,
  type Markup,
} from '@stylet/core/document';
import { facetsOf, restrictedTo, unrestricted } from './index-restriction';
import { allRowsOf, countsOf, rowsOf, type IndexKind } from './index-rows';

const pages: Page[] = ['i', '1', '2'].map((label, i) => ({
  id: newId(),
  label,
  order: `a${i}`,
  source: 'f'.repeat(64),
  width: 100,
  height: 100,
  rotation: 0,
  sourceIndex: i,
  hasMarks: false,
}));
const now = '2026-09-01T08:00:00.000Z';
const entry = (title: string, at: number, y: number, parentId?: string): Landmark => ({
  kind: 'outline',
  id: newId(),
  order: `a${at}${y}`,
  title,
  open: true,
  place: { pageId: pages[at].id, y },
  ...(parentId ? { parentId } : {}),
});
const mark = (at: number, y: number, contents: string): Markup => ({
  kind: 'highlight',
  id: newId(),
  pageId: pages[at].id,
  order: 'a1',
  color: '#ffe27a',
  opacity: 1,
  author: '',
  created: now,
  modified: now,
  quads: [[0, y, 50, y, 0, y + 8, 50, y + 8]],
  contents,
});
const foreign = (at: number, y: number): Annotation =>
  ({
    kind: 'foreign',
    id: newId(),
    pageId: pages[at].id,
    order: 'a0',
    subtype: 'Text',
    contents: 'Check  this',
    box: { x0: 0, y0: y, x1: 9, y1: y + 9 },
  }) as unknown as Annotation;

const one = entry('One', 0, 10);
const contentsOf = (annotations: Annotation[], landmarks: Landmark[]) => {
  const state = documentState('', annotations, landmarks);
  return { ...state, pages, tree: outlineTree(state.landmarks) };
};
const contents = contentsOf(
  [mark(1, 60, 'the berm crest'), foreign(0, 40)],
  [
    one,
    entry('Under one', 1, 20, one.id),
    entry('Two', 2, 10),
    { kind: 'bookmark', id: newId(), place: { pageId: pages[1].id }, title: 'Here', created: now },
    {
      kind: 'keyword',
      id: newId(),
      place: { pageId: pages[2].id, y: 50 },
      word: 'drift',
      created: now,
    },
  ],
);
const listed = (kinds: IndexKind[], isOpen = true): string[] =>
  rowsOf(contents, new Set(kinds), () => isOpen).map(({ words, label }) => `${words} ${label}`);

test('everything is one list in page order, the outline in its own', () => {
  expect(listed(['outline', 'bookmark', 'keyword', 'highlights', 'others'])).toEqual([
    'One i',
    'Check this i',
    'Here 1',
    'Under one 1',
    'the berm crest 1',
    'Two 2',
    'drift 2',
  ]);
});

test('only what is wanted is listed, and what is folded away is not', () => {
  expect(listed(['bookmark'])).toEqual(['Here 1']);
  expect(listed(['outline'], false)).toEqual(['One i', 'Two 2']);
  expect(listed([])).toEqual([]);
});

test('each kind is counted, also what is folded or not listed', () => {
  const counts = countsOf(allRowsOf(contents));
  expect([...counts].sort()).toEqual([
    ['bookmark', 1],
    ['highlights', 1],
    ['keyword', 1],
    // What another program's mark says is a note as well.
    ['notes', 1],
    ['others', 1],
    ['outline', 3],
  ]);
});

test('the list is narrowed down to pages, colours and authors', () => {
  const other = { ...mark(2, 10, 'the swash'), color: '#bde8b2', author: 'Ines' };
  const more = contentsOf(
    [mark(1, 60, 'the berm crest'), other],
    Object.values(contents.landmarks),
  );
  const rows = allRowsOf(more);
  const listedBy = (change: Partial<typeof unrestricted>): string[] =>
    restrictedTo({ ...unrestricted, ...change }, rows, more).map(({ words }) => words);
  expect(listedBy({})).toHaveLength(rows.length);
  expect(listedBy({ pages: 'bookmarked' })).toEqual(['Here', 'Under one', 'the berm crest']);
  expect(listedBy({ pages: 'annotated', authors: new Set(['Ines']) })).toEqual(['the swash']);
  expect(listedBy({ colors: new Set(['#ffe27a', '#bde8b2']) })).toEqual([
    'the berm crest',
    'the swash',
  ]);
  expect(facetsOf(rows)).toEqual({
    colors: [
      { value: '#bde8b2', count: 1 },
      { value: '#ffe27a', count: 1 },
    ],
    authors: [
      { value: '', count: 1 },
      { value: 'Ines', count: 1 },
    ],
    states: [],
  });
});

test('what was said to something is listed with it, found by who said it and by what it is set to', () => {
  const berm = mark(1, 60, 'the berm crest');
  const reply = (change: object): Annotation => ({
    ...berm,
    kind: 'reply',
    id: newId(),
    to: berm.id,
    author: 'Ines',
    paragraphs: [{ runs: [{ text: 'Which one?' }] }],
    ...change,
  });
  const more = contentsOf(
    [berm, reply({}), reply({ state: 'completed' }), mark(2, 10, 'the swash')],
    [],
  );
  const rows = allRowsOf(more);
  expect(rows.map(({ words, thread }) => [words, thread?.replies.length])).toEqual([
    ['the berm crest', 2],
    ['the swash', undefined],
  ]);
  const noted = rowsOf(more, new Set<IndexKind>(['notes']), () => true);
  expect(noted.map(({ words }) => words)).toEqual(['the berm crest']);
  expect(facetsOf(rows).states).toEqual([{ value: 'completed', count: 1 }]);
  for (const change of [{ authors: new Set(['Ines']) }, { states: new Set(['completed']) }])
    expect(restrictedTo({ ...unrestricted, ...change }, rows, more)).toHaveLength(1);
  expect(restrictedTo({ ...unrestricted, states: new Set(['none']) }, rows, more)).toEqual([]);
});

test('what is on a page is listed where that page is now, by what it is called now', () => {
  const ofHighlights = (given: typeof contents): string[] =>
    rowsOf(given, new Set<IndexKind>(['highlights']), () => true).map(
      ({ words, label, pageIndex }) => `${words} ${label} ${pageIndex}`,
    );
  expect(ofHighlights(contents)).toEqual(['the berm crest 1 1']);
  const [first, second, third] = pages;
  expect(ofHighlights({ ...contents, pages: [second, first, third] })).toEqual([
    'the berm crest 1 0',
  ]);
  expect(ofHighlights({ ...contents, pages: [first, { ...second, label: 'A' }, third] })).toEqual([
    'the berm crest A 1',
  ]);
});
