import fc from 'fast-check';
import {
  apply,
  applyAll,
  documentState,
  entriesUnder,
  invert,
  nestedEntries,
  newId,
  orderAt,
  outlineTree,
  stands,
  writingsAmong,
  type Annotation,
  type DocumentState,
  type Effect,
  type Landmark,
  type OutlineEntry,
  type OutlineNode,
} from './index';
import type { Box } from '../geometry/index';

const now = '2026-09-01T08:00:00.000Z';
const pageId = newId();
const entry = (title: string, change: Partial<OutlineEntry> = {}): OutlineEntry => ({
  kind: 'outline',
  id: newId(),
  order: 'a0',
  title,
  open: true,
  ...change,
});
const stateOf = (...landmarks: Landmark[]): DocumentState => documentState('', [], landmarks);
const shapeOf = (nodes: readonly OutlineNode[]): unknown =>
  nodes.map(({ entry: e, children }) =>
    children.length > 0 ? [e.title, shapeOf(children)] : e.title,
  );

test('entries stand under their parents, in their order', () => {
  const a = entry('a', { order: 'a1' });
  const b = entry('b', { order: 'a0' });
  const c = entry('c', { parentId: a.id, order: 'a1' });
  const d = entry('d', { parentId: a.id, order: 'a0' });
  const tree = outlineTree(stateOf(a, b, c, d).landmarks);
  expect(shapeOf(tree)).toEqual(['b', ['a', ['d', 'c']]]);
  expect(entriesUnder(tree[1]).map(({ title }) => title)).toEqual(['a', 'd', 'c']);
});

test('an entry whose parent is gone, or that came under itself, is not lost', () => {
  const orphan = entry('orphan', { parentId: newId(), order: 'a0' });
  const [x, y] = [newId(), newId()];
  const a = entry('a', { id: x, parentId: y, order: 'a1' });
  const b = entry('b', { id: y, parentId: x, order: 'a2' });
  const tree = outlineTree(stateOf(orphan, a, b).landmarks);
  expect(shapeOf(tree)).toEqual(['orphan', 'a', 'b']);
});

test('wherever an entry goes among others, it is there and the others stay in order', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(6), { maxLength: 14 }), (places) => {
      let state = stateOf();
      const model: string[] = [];
      places.forEach((wanted, i) => {
        const siblings = outlineTree(state.landmarks);
        const index = Math.min(wanted, siblings.length);
        const landmark = entry(String(i), { order: orderAt(siblings, index) });
        state = apply(state, { type: 'landmark.add', landmark });
        model.splice(index, 0, String(i));
      });
      expect(shapeOf(outlineTree(state.landmarks))).toEqual(model);
    }),
  );
});

const ids = [newId(), newId(), newId()];
const landmarks: fc.Arbitrary<Landmark> = fc.oneof(
  fc
    .record({ id: fc.constantFrom(...ids), title: fc.string({ maxLength: 9 }) })
    .map((part) => entry(part.title, { id: part.id })),
  fc.constantFrom(...ids).map((id): Landmark => ({
    kind: 'bookmark',
    id,
    place: { pageId },
    title: 'Here',
    created: now,
  })),
  fc.constantFrom(...ids).map((id): Landmark => ({
    kind: 'keyword',
    id,
    place: { pageId, y: 4 },
    word: 'drift',
    created: now,
  })),
);
const effects: fc.Arbitrary<Effect> = fc.oneof(
  landmarks.map((landmark): Effect => ({ type: 'landmark.add', landmark })),
  fc.constantFrom(...ids).map((landmarkId): Effect => ({ type: 'landmark.remove', landmarkId })),
  fc
    .tuple(
      fc.constantFrom(...ids),
      fc.record(
        {
          title: fc.string({ maxLength: 9 }),
          word: fc.constant('shoal'),
          parentId: fc.constantFrom(null, ...ids),
          color: fc.constantFrom(null, '#9a5b00'),
          place: fc.constant({ pageId, x: 1, y: 2 }),
          open: fc.boolean(),
        },
        { requiredKeys: [] },
      ),
    )
    .map(([landmarkId, fields]): Effect => ({ type: 'landmark.change', landmarkId, fields })),
);

test('what is done to landmarks is undone by its inverse, alone or with much else', () => {
  fc.assert(
    fc.property(fc.array(effects, { maxLength: 12 }), effects, (before, last) => {
      const state = before.reduce(apply, stateOf());
      expect(applyAll(stateOf(), before)).toEqual(state);
      const after = apply(state, last);
      const back = invert(state, last);
      expect(back ? apply(after, back) : after).toEqual(state);
      const landmarkId = last.type === 'landmark.add' ? last.landmark.id : ids[0];
      if (last.type !== 'landmark.change') expect(stands(after, last)).toBe(true);
      expect(stands(stateOf(), { type: 'landmark.remove', landmarkId })).toBe(true);
    }),
  );
});

test('strokes near each other are one piece of writing, from the top down', () => {
  const boxes: Box[] = [
    { x0: 100, y0: 300, x1: 120, y1: 310 },
    { x0: 10, y0: 20, x1: 30, y1: 30 },
    { x0: 38, y0: 22, x1: 60, y1: 31 },
    { x0: 70, y0: 21, x1: 80, y1: 28 },
    { x0: 200, y0: 20, x1: 210, y1: 30 },
  ];
  const strokes = boxes.map((_, i) => ({ id: String(i) }) as unknown as Annotation);
  const found = writingsAmong(strokes, ({ id }) => boxes[Number(id)]);
  expect(found.map(({ annotations }) => annotations.map(({ id }) => id))).toEqual([
    ['1', '2', '3'],
    ['4'],
    ['0'],
  ]);
  expect(found[0].box).toEqual({ x0: 10, y0: 20, x1: 80, y1: 31 });
});

test('a list of headings becomes an outline as deep, in its order', () => {
  const lists = fc.array(fc.record({ title: fc.string(), depth: fc.nat(4) }), { maxLength: 40 });
  fc.assert(
    fc.property(lists, (list) => {
      const entries = nestedEntries(list.map((item) => ({ ...item, place: { pageId } })));
      const flat = (nodes: readonly OutlineNode[], depth: number): [string, number][] =>
        nodes.flatMap((node) => [[node.entry.title, depth], ...flat(node.children, depth + 1)]);
      let deepest = -1;
      const wanted = list.map(({ title, depth }) => {
        deepest = Math.min(depth, deepest + 1);
        return [title, deepest];
      });
      expect(flat(outlineTree(documentState('', [], entries).landmarks), 0)).toEqual(wanted);
    }),
  );
});
