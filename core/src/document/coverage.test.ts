import {
  coverageOf,
  documentState,
  newId,
  outlineTree,
  type Annotation,
  type Landmark,
} from './index';

const pages = ['i', '1', '2', '3'].map((label) => ({ id: newId(), label }));
const entry = (title: string, at: number): Landmark => ({
  kind: 'outline',
  id: newId(),
  order: `a${at}`,
  title,
  open: true,
  place: { pageId: pages[at].id },
});
const bookmark: Landmark = {
  kind: 'bookmark',
  id: newId(),
  place: { pageId: pages[2].id },
  title: 'Here',
  created: '2026-09-01T08:00:00.000Z',
};
const mark = { id: newId(), pageId: pages[3].id, kind: 'foreign' } as unknown as Annotation;
const seen = new Map([
  [pages[1].id, '2026-09-02T10:00:00.000Z'],
  [pages[2].id, '2026-09-01T10:00:00.000Z'],
]);

test('pages are counted by chapter: seen, annotated, bookmarked, and when last', () => {
  const state = documentState('', [mark], [entry('Waves', 1), entry('Tides', 3), bookmark]);
  const { chapters, ...whole } = coverageOf(
    pages,
    outlineTree(state.landmarks),
    state.landmarks,
    state.annotations,
    seen,
  );
  expect(
    chapters.map(({ title, pages: own, ...counts }) => ({ title, pages: own.length, ...counts })),
  ).toEqual([
    { title: '', pages: 1, seen: 0, annotated: 0, bookmarked: 0, last: undefined },
    {
      title: 'Waves',
      pages: 2,
      seen: 2,
      annotated: 0,
      bookmarked: 1,
      last: '2026-09-02T10:00:00.000Z',
    },
    { title: 'Tides', pages: 1, seen: 0, annotated: 1, bookmarked: 0, last: undefined },
  ]);
  expect(whole).toMatchObject({ seen: 2, annotated: 1, bookmarked: 1 });
});

test('without an outline all pages are one; chapters that begin on one page share it', () => {
  const none = coverageOf(pages, [], {}, {}, new Map());
  expect(none.chapters.map(({ pages: own }) => own.length)).toEqual([4]);
  const { landmarks } = documentState('', [], [entry('One', 0), entry('Two', 0)]);
  const both = coverageOf(pages, outlineTree(landmarks), landmarks, {}, seen);
  expect(both.chapters.map(({ pages: own, seen: count }) => [own.length, count])).toEqual([
    [1, 0],
    [4, 2],
  ]);
  expect(both.seen).toBe(2);
});
