import fc from 'fast-check';
import {
  apply,
  documentState,
  find,
  inPaintingOrder,
  invert,
  paintingOrder,
  type Annotation,
  type Effect,
} from './index';

const id = (n: number): string => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const ids = fc.integer({ min: 1, max: 4 }).map(id);
const pages = fc.integer({ min: 91, max: 92 }).map(id);

const ink = (annotationId: string, pageId: string, color: string): Annotation => ({
  kind: 'ink',
  id: annotationId,
  pageId,
  order: 'a0',
  color,
  opacity: 1,
  author: 'A',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  instrument: 'nib',
  width: 1,
  smoothing: 0,
  samples: '',
});
const color = fc.constantFrom('#22304a', '#1f6f66', '#b3324b');
const effect: fc.Arbitrary<Effect> = fc.oneof(
  fc.record({
    type: fc.constant('annotation.add' as const),
    annotation: fc.tuple(ids, pages, color).map((a) => ink(...a)),
  }),
  fc.record({
    type: fc.constant('annotation.change' as const),
    pageId: pages,
    annotationId: ids,
    fields: fc.record({ color }),
  }),
  fc.record({ type: fc.constant('annotation.remove' as const), pageId: pages, annotationId: ids }),
  fc.record({
    type: fc.constant('document.rename' as const),
    title: fc.constantFrom('One', 'Two'),
  }),
);
const contents = (state: ReturnType<typeof documentState>): unknown => [
  state.title,
  Object.values(state.annotations)
    .flatMap((page) => Object.values(page))
    .sort((a, b) => (a.id + a.pageId < b.id + b.pageId ? -1 : 1)),
];

test('undoing every step backwards gives the document one started from', () => {
  fc.assert(
    fc.property(fc.array(effect, { maxLength: 25 }), (effects) => {
      const start = documentState('Zero', [ink(id(1), id(91), '#22304a')]);
      const inverses: Effect[] = [];
      let state = start;
      for (const step of effects) {
        const back = invert(state, step);
        if (back) inverses.unshift(back);
        state = apply(state, step);
      }
      expect(contents(inverses.reduce(apply, state))).toEqual(contents(start));
    }),
  );
});

test('doing something again changes nothing more', () => {
  fc.assert(
    fc.property(fc.array(effect, { maxLength: 10 }), effect, (before, step) => {
      const once = apply(before.reduce(apply, documentState('Zero', [])), step);
      expect(contents(apply(once, step))).toEqual(contents(once));
    }),
  );
});

test('removing wins over changing', () => {
  const start = documentState('Zero', [ink(id(1), id(91), '#22304a')]);
  const removed = apply(start, { type: 'annotation.remove', pageId: id(91), annotationId: id(1) });
  const change: Effect = {
    type: 'annotation.change',
    pageId: id(91),
    annotationId: id(1),
    fields: { color: '#1f6f66' },
  };
  expect(find(apply(removed, change), id(91), id(1))).toBeUndefined();
});

test('a stroke leaves the other pages as the same objects', () => {
  const start = documentState('Zero', [
    ink(id(1), id(91), '#22304a'),
    ink(id(2), id(92), '#22304a'),
  ]);
  const after = apply(start, { type: 'annotation.add', annotation: ink(id(3), id(91), '#1f6f66') });
  expect(after.annotations[id(92)]).toBe(start.annotations[id(92)]);
});

test('annotations are painted by their order, then by their id', () => {
  const list = [
    { ...ink(id(2), id(91), '#22304a'), order: 'a1' },
    { ...ink(id(1), id(91), '#22304a'), order: 'a1' },
    { ...ink(id(3), id(91), '#22304a'), order: 'a0' },
  ];
  const page = documentState('', list).annotations[id(91)];
  expect(paintingOrder(page).map((a) => a.id)).toEqual([id(3), id(1), id(2)]);
});

test('a page that grows is in the same order as one that is sorted anew', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(30), fc.nat(9)), { maxLength: 25 }), (added) => {
      let state = documentState('', []);
      for (const [n, order] of added) {
        // Asking for the order on the way is what lets it be kept.
        paintingOrder(state.annotations[id(91)] ?? {});
        const annotation = { ...ink(id(n), id(91), '#22304a'), order: `a${order}` };
        state = apply(state, { type: 'annotation.add', annotation });
      }
      const page = state.annotations[id(91)] ?? {};
      expect(paintingOrder(page)).toEqual(inPaintingOrder(Object.values(page)));
    }),
  );
});
