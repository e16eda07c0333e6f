import fc from 'fast-check';
import { applyAll } from './draft';
import { apply, invert } from './apply';
import { newId } from './ids';
import { copyPages } from './copied-pages';
import { movePages, removePages, rotatePages } from './page-effects';
import { pageOrders, pagesInOrder, type DocumentPage } from './page';
import { presentAnnotations, presentLandmarks } from './present';
import { documentState, type DocumentState } from './state';
import type { Effect } from './operation';
import type { Link } from './link';
import type { Keyword, Landmark, OutlineEntry } from './landmark';

const NOW = '2026-09-01T08:00:00.000Z';

function document_(count: number, labels: readonly string[] = []): DocumentState {
  const orders = pageOrders([], 0, count);
  const pages = orders.map((order, i): DocumentPage => ({
    id: newId(),
    order,
    width: 100,
    height: 200,
    rotation: 0,
    label: labels[i] ?? null,
    source: 'f'.repeat(64),
    sourceIndex: i,
    hasMarks: false,
  }));
  return documentState('Notes', [], [], pages);
}

const sources = ({ pages }: DocumentState): number[] =>
  pagesInOrder(pages).map(({ sourceIndex }) => sourceIndex);

/** Undone in reverse, a step leaves the document as it was. */
function undone(state: DocumentState, effects: readonly Effect[]): DocumentState {
  const back: Effect[] = [];
  let now = state;
  for (const effect of effects) {
    const inverse = invert(now, effect);
    if (inverse) back.unshift(inverse);
    now = apply(now, effect);
  }
  return applyAll(now, back);
}

test('pages that are moved stand together where they were put, and undo puts them back', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.array(fc.tuple(fc.uniqueArray(fc.nat(29), { minLength: 1 }), fc.nat(30)), {
        minLength: 1,
        maxLength: 6,
      }),
      (count, moves) => {
        let state = document_(count);
        for (const [chosen, to] of moves) {
          const pages = pagesInOrder(state.pages);
          const ids = new Set(chosen.flatMap((i) => pages[i]?.id ?? []));
          const index = Math.min(to, count);
          const before = pages.slice(0, index).filter(({ id }) => !ids.has(id));
          const after = pages.slice(index).filter(({ id }) => !ids.has(id));
          const moving = pages.filter(({ id }) => ids.has(id));
          const effects = movePages(pages, ids, index);
          expect(undone(state, effects)).toEqual(state);
          state = applyAll(state, effects);
          expect(pagesInOrder(state.pages).map(({ id }) => id)).toEqual(
            [...before, ...moving, ...after].map(({ id }) => id),
          );
        }
      },
    ),
  );
});

test('labels are those of the file, and the places of pages that have none', () => {
  const state = document_(4, ['i', 'ii']);
  expect(pagesInOrder(state.pages).map(({ label }) => label)).toEqual(['i', 'ii', '3', '4']);
  const pages = pagesInOrder(state.pages);
  const moved = applyAll(state, movePages(pages, new Set([pages[3].id]), 0));
  expect(pagesInOrder(moved.pages).map(({ label }) => label)).toEqual(['1', 'i', 'ii', '4']);
});

test('a quarter turn four times is none; the last page cannot be taken out', () => {
  let state = document_(2);
  const all = new Set(Object.keys(state.pages));
  for (const expected of [90, 180, 270, 0]) {
    state = applyAll(state, rotatePages(pagesInOrder(state.pages), all, 90));
    expect(Object.values(state.pages).map(({ rotation }) => rotation)).toEqual([
      expected,
      expected,
    ]);
  }
  expect(removePages(pagesInOrder(state.pages), all)).toEqual([]);
});

const link = (pageId: string, to: string): Link => ({
  kind: 'link',
  id: newId(),
  pageId,
  order: 'a0',
  opacity: 1,
  author: '',
  created: NOW,
  modified: NOW,
  quads: [[0, 0, 10, 0, 0, 10, 10, 10]],
  contents: '',
  target: { place: { pageId: to } },
});

test('copies carry what is on their pages; links among them lead from copy to copy', () => {
  let state = document_(4);
  const [a, b, c] = pagesInOrder(state.pages);
  state = applyAll(
    state,
    [link(a.id, b.id), link(a.id, c.id)].map((annotation) => ({
      type: 'annotation.add',
      annotation,
    })),
  );
  const [face] = Object.keys(state.annotations[a.id]);
  const keyword: Landmark = {
    kind: 'keyword',
    id: newId(),
    place: { pageId: a.id, y: 5 },
    word: 'swash',
    annotationIds: [face],
    created: NOW,
  };
  state = apply(state, { type: 'landmark.add', landmark: keyword });
  const { effects, copies } = copyPages(state, new Set([a.id, b.id]), 4, NOW);
  expect(undone(state, effects).pages).toEqual(state.pages);
  const after = applyAll(state, effects);
  expect(sources(after)).toEqual([0, 1, 2, 3, 0, 1]);
  const targets = Object.values(after.annotations[copies[0]]).map(
    (annotation) =>
      annotation.kind === 'link' && 'place' in annotation.target && annotation.target.place.pageId,
  );
  expect(new Set(targets)).toEqual(new Set([copies[1], c.id]));
  expect(Object.keys(state.annotations[a.id])).toHaveLength(2);
  // The keyword is hung on the copy as well, and its face is the copied annotation.
  const hung = Object.values(after.landmarks).find(({ place }) => place?.pageId === copies[0])!;
  expect(hung).toMatchObject({ kind: 'keyword', word: 'swash', place: { y: 5 } });
  const [ofCopy] = (hung as Keyword).annotationIds!;
  expect(ofCopy).not.toBe(face);
  expect(after.annotations[copies[0]][ofCopy]).toBeDefined();
});

test('what was on a removed page is away with it, and comes back with it', () => {
  let state = document_(3);
  const [a, b, c] = pagesInOrder(state.pages);
  const entry = (id: string, pageId: string, parentId?: string): OutlineEntry => ({
    kind: 'outline',
    id,
    order: 'a0',
    title: id,
    place: { pageId },
    open: true,
    ...(parentId === undefined ? {} : { parentId }),
  });
  const [top, under, alone, mark] = [newId(), newId(), newId(), newId()];
  const landmarks: Landmark[] = [
    entry(top, b.id),
    entry(under, c.id, top),
    entry(alone, b.id),
    { kind: 'bookmark', id: mark, place: { pageId: b.id }, title: '', created: NOW },
  ];
  state = applyAll(state, [
    { type: 'annotation.add', annotation: link(b.id, a.id) },
    ...landmarks.map((landmark): Effect => ({ type: 'landmark.add', landmark })),
  ]);
  const removed = applyAll(state, removePages(pagesInOrder(state.pages), new Set([b.id])));
  const left = presentLandmarks(removed.landmarks, removed.pages);
  // The entry above one that still leads somewhere stays, and leads nowhere itself.
  expect(Object.keys(left).sort()).toEqual([top, under].sort());
  expect(left[top].place).toBeUndefined();
  expect(presentAnnotations(removed)).toEqual({});
  const back = apply(removed, { type: 'page.add', page: state.pages[b.id] });
  expect(presentLandmarks(back.landmarks, back.pages)).toEqual(state.landmarks);
  expect(presentAnnotations(back)).toEqual(state.annotations);
});

test('a page of a companion remembers the page it was written beside; undo forgets it again', () => {
  const state = document_(2);
  const [first] = pagesInOrder(state.pages);
  const beside = { documentId: newId(), pageId: newId() };
  const step: Effect[] = [{ type: 'page.change', pageId: first.id, fields: { beside } }];
  expect(applyAll(state, step).pages[first.id].beside).toEqual(beside);
  expect(apply(applyAll(state, step), step[0]).pages[first.id].beside).toEqual(beside);
  expect(undone(state, step).pages[first.id].beside ?? null).toBeNull();
  // Turning the page does not make it forget.
  const turned = applyAll(state, [
    ...step,
    ...rotatePages(pagesInOrder(state.pages), new Set([first.id]), 90),
  ]);
  expect(turned.pages[first.id]).toMatchObject({ rotation: 90, beside });
});
