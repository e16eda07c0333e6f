import { transform, type Matrix } from '../geometry/index';
import { annotationSchema, type Annotation, type ShapeAnnotation } from './annotation';
import { copiesOf } from './copied-pages';
import { changed } from './entities';
import type { Kind, OfKind } from './kinds';
import type { OutlineEntry } from './landmark';
import type { Link } from './link';
import { nestedEntries } from './nested-entries';
import { outlineTree } from './outline-tree';
import type { DocumentPage } from './page';
import { newGroups, withReferences } from './references';
import { isGone, removalOf } from './removal';
import { outlineStyle } from './shape-ink';
import { isEditable, isShown } from './shown';
import { sortOf } from './sorts';
import { documentState } from './state';
import { stratumOf } from './strata';
import { idOf } from './testing/index';
import { isMovable, transformedFields } from './transform';

const NOW = '2026-09-01T08:00:00.000Z';
const placed = {
  id: idOf(1),
  pageId: idOf(91),
  order: 'a0',
  opacity: 1,
  author: 'A',
  created: NOW,
  modified: NOW,
};
const look = { color: '#22304a', instrument: 'nib', width: 2, smoothing: 0 } as const;
const QUAD: Link['quads'][number] = [10, 10, 50, 10, 10, 20, 50, 20];
const mark = { ...placed, color: '#ffe27a', quads: [QUAD], contents: 'tide' };
const origin = { object: 7, generation: 0, modified: NOW };

/** One of each; whoever adds a kind adds it here. */
const all: { readonly [K in Kind]: OfKind<K> } = {
  ink: { ...placed, ...look, kind: 'ink', samples: '' },
  shape: {
    ...placed,
    ...look,
    kind: 'shape',
    form: 'line',
    points: [
      { x: 10, y: 10 },
      { x: 50, y: 10 },
    ],
    bends: [],
    fill: 0,
  },
  highlight: { ...mark, kind: 'highlight' },
  underline: { ...mark, kind: 'underline' },
  strikeout: { ...mark, kind: 'strikeout' },
  picture: {
    ...placed,
    kind: 'picture',
    digest: 'f'.repeat(64),
    medium: 'pixels',
    width: 4,
    height: 1,
    transform: [40, 0, 0, 10, 10, 10],
    contents: '',
  },
  textBox: {
    ...placed,
    kind: 'textBox',
    color: '#22304a',
    look: { font: 'inter', size: 12 },
    paragraphs: [{ runs: [{ text: 'tide' }] }],
    frame: { padding: 4 },
    size: { width: 40, height: 24 },
    transform: [1, 0, 0, 1, 10, 10],
  },
  link: {
    ...placed,
    kind: 'link',
    quads: [QUAD],
    contents: '',
    target: { address: 'https://tidewater.example' },
  },
  note: {
    ...placed,
    kind: 'note',
    color: '#ffe27a',
    at: { x: 10, y: 10 },
    paragraphs: [{ runs: [{ text: 'tide' }] }],
  },
  reply: { ...placed, kind: 'reply', to: idOf(2), paragraphs: [{ runs: [{ text: 'ebb' }] }] },
  foreign: {
    ...placed,
    kind: 'foreign',
    color: '#000000',
    subtype: 'Text',
    box: { x0: 10, y0: 10, x1: 50, y1: 20 },
    contents: '',
    origin,
  },
};
const kinds = Object.keys(all) as Kind[];
const each = <T>(ask: (annotation: Annotation) => T): Record<string, T> =>
  Object.fromEntries(kinds.map((kind) => [kind, ask(all[kind])]));

test('one of each kind is as its schema has it', () => {
  for (const kind of kinds) expect(annotationSchema.parse(all[kind])).toEqual(all[kind]);
});

test('where each kind lies, and what it counts as', () => {
  expect(each(stratumOf)).toEqual({
    ink: 'over',
    shape: 'over',
    highlight: 'under',
    underline: 'over',
    strikeout: 'over',
    picture: 'paper',
    textBox: 'over',
    link: 'over',
    note: 'over',
    reply: 'over',
    foreign: 'paper',
  });
  expect(stratumOf({ ...all.picture, inFront: true })).toBe('over');
  for (const kind of ['ink', 'shape'] as const) {
    expect(stratumOf({ ...all[kind], instrument: 'wash' })).toBe('under');
    expect(stratumOf({ ...all[kind], instrument: 'wash', blend: 'normal' })).toBe('over');
  }
  expect(each(sortOf)).toEqual({
    ink: 'ink',
    shape: 'shapes',
    highlight: 'highlights',
    underline: 'highlights',
    strikeout: 'highlights',
    picture: 'pictures',
    textBox: 'text',
    link: 'links',
    note: 'notes',
    reply: 'notes',
    foreign: 'others',
  });
  expect(sortOf({ ...all.ink, instrument: 'highlighter' })).toBe('highlights');
});

test('what is moved has all its corners where the map brings them; what another program drew stays, and a reply lies nowhere', () => {
  const map: Matrix = [0, 2, -2, 0, 5, 7];
  for (const kind of ['highlight', 'underline', 'strikeout', 'link'] as const) {
    const { quads } = transformedFields(all[kind], map)!;
    const corners = [0, 2, 4, 6].map((i) => ({ x: quads![0][i], y: quads![0][i + 1] }));
    expect(corners).toEqual(
      [0, 2, 4, 6].map((i) => transform(map, { x: QUAD[i], y: QUAD[i + 1] })),
    );
  }
  const { points, width } = transformedFields(all.shape, map)!;
  expect(points).toEqual(all.shape.points.map((point) => transform(map, point)));
  expect(width).toBeCloseTo(4);
  expect(transformedFields({ ...all.shape, width: 150 }, map)!.width).toBe(200);
  expect(transformedFields(all.ink, map)).toEqual({ transform: map });
  expect(transformedFields(all.picture, map)!.transform).toEqual([0, 80, -20, 0, -15, 27]);
  expect(transformedFields(all.textBox, map)!.transform).toEqual([0, 2, -2, 0, -15, 27]);
  expect(transformedFields(all.note, map)).toEqual({ at: { x: -15, y: 27 } });
  for (const kind of ['foreign', 'reply'] as const)
    expect(transformedFields(all[kind], map)).toBeUndefined();
});

test('what is locked, hidden or gone is not changed; what another program drew is not moved', () => {
  for (const kind of kinds) {
    expect([isShown(all[kind]), isEditable(all[kind])]).toEqual([true, true]);
    expect(isMovable(all[kind])).toBe(kind !== 'foreign' && kind !== 'reply');
    const locked = changed(all[kind], { locked: true });
    expect([isShown(locked), isEditable(locked), isMovable(locked)]).toEqual([true, false, false]);
    const hidden = { ...all[kind], hidden: true } as Annotation;
    expect([isShown(hidden), isEditable(hidden)]).toEqual([false, false]);
  }
  const gone: Link = { ...all.link, target: { nowhere: true } };
  expect([isGone(gone), isShown(gone), isEditable(gone)]).toEqual([true, false, false]);
});

test('of a link that the file has it stays said that it is gone; all else just goes', () => {
  const remove = { type: 'annotation.remove', pageId: placed.pageId, annotationId: placed.id };
  for (const kind of kinds) {
    expect(removalOf({ ...all[kind], origin: undefined } as Annotation)).toEqual(remove);
    const removal = removalOf({ ...all[kind], origin } as Annotation);
    expect(removal).toEqual(
      kind === 'link'
        ? { ...remove, type: 'annotation.change', fields: { target: { nowhere: true } } }
        : remove,
    );
  }
});

test('a shape has as many points as its form needs', () => {
  const [from, to] = all.shape.points;
  const shape = (form: ShapeAnnotation['form'], points: ShapeAnnotation['points']) =>
    annotationSchema.safeParse({ ...all.shape, form, points }).success;
  expect(shape('line', [from, to])).toBe(true);
  expect(shape('line', [from, to, from, to])).toBe(false);
  expect(shape('polygon', [from, to])).toBe(false);
});

test('copies refer to copies: groups to one of their own, links to where their pages went, replies to what they answer', () => {
  let made = 10;
  const references = {
    group: newGroups(() => idOf(++made)),
    place: ({ pageId, ...at }: { pageId: string }) =>
      pageId === idOf(91) ? { place: { ...at, pageId: idOf(92) } } : undefined,
    annotation: (id: string) => (id === idOf(7) ? idOf(8) : id),
  };
  const later = '2026-09-02T08:00:00.000Z';
  const copy = (annotation: Annotation): Annotation =>
    withReferences(annotation, references, later);
  const [one, two, other] = [idOf(5), idOf(5), idOf(6)].map(
    (group) => copy({ ...all.ink, group }).group,
  );
  expect([one, two, other]).toEqual([idOf(11), idOf(11), idOf(12)]);
  for (const kind of kinds) {
    expect(copy(all[kind])).toEqual(all[kind]);
    expect(copy(all[kind])).not.toBe(all[kind]);
  }
  // A reply to a copy was not changed by that.
  expect(copy({ ...all.reply, to: idOf(7) })).toEqual({ ...all.reply, to: idOf(8) });
  const to = (pageId: string): Annotation => ({ ...all.link, target: { place: { pageId, y: 3 } } });
  expect(copy(to(idOf(91)))).toMatchObject({
    modified: later,
    target: { place: { pageId: idOf(92), y: 3 } },
  });
  expect(copy(to(idOf(93)))).toMatchObject({ modified: later, target: { nowhere: true } });
});

test('entries from a list show what is under them only at the top, and keep their order', () => {
  const place = { pageId: idOf(91) };
  const list = [0, 1, 1, 2, 0, 5].map((depth, i) => ({ title: String(i), depth, place }));
  const entries = nestedEntries(list);
  expect(entries.map(({ open }) => open)).toEqual([true, false, false, false, true, false]);
  const parents = entries.map(({ parentId }) => entries.findIndex(({ id }) => id === parentId));
  expect(parents).toEqual([-1, 0, 0, 2, -1, 4]);
  expect(entries[2].order > entries[1].order && entries[4].order > entries[0].order).toBe(true);
});

test('of a page that goes to another document, marks of its file say which file that is', () => {
  const page: DocumentPage = {
    id: idOf(91),
    order: 'a0',
    width: 100,
    height: 100,
    rotation: 0,
    label: null,
    source: 'f'.repeat(64),
    sourceIndex: 0,
    hasMarks: true,
  };
  const state = documentState('', [all.foreign, { ...all.ink, id: idOf(2) }], [], [page]);
  const from = { state, leading: () => undefined, kinds: new Set([]) };
  const origins = (source: string | undefined) =>
    copiesOf({ ...from, source }, new Set([page.id]), [], 0, NOW).effects.flatMap((effect) =>
      effect.type === 'annotation.add' ? [effect.annotation.origin] : [],
    );
  expect(origins('e'.repeat(64))).toEqual([{ ...origin, source: 'e'.repeat(64) }, undefined]);
  expect(origins(undefined)).toEqual([origin, undefined]);
});

test('an outline is the same tree in whatever order its entries come, to any depth', () => {
  const entries = Array.from({ length: 70 }, (_, i): OutlineEntry => ({
    kind: 'outline',
    id: idOf(100 + i),
    order: 'a0',
    title: String(i),
    open: false,
    ...(i > 0 ? { parentId: idOf(99 + i) } : {}),
  }));
  const depths = (list: readonly OutlineEntry[]): number[] => {
    const found = new Map<string, number>();
    const walk = (nodes: ReturnType<typeof outlineTree>, depth: number): void =>
      nodes.forEach(({ entry, children }) => {
        found.set(entry.id, depth);
        walk(children, depth + 1);
      });
    walk(outlineTree(documentState('', [], list).landmarks), 0);
    return entries.map(({ id }) => found.get(id)!);
  };
  // What is deeper than 64 levels stands at the lowest of them.
  const expected = entries.map((_, i) => Math.min(i, 63));
  expect(depths(entries)).toEqual(expected);
  expect(depths([...entries].reverse())).toEqual(expected);
});

test('a shape is drawn just along its outline, by its own instrument', () => {
  expect(outlineStyle({ ...all.shape, instrument: 'wash', smoothing: 0.7, width: 3 })).toEqual(
    expect.objectContaining({ instrument: 'wash', width: 3, smoothing: 0, freeform: true }),
  );
});
