import fc from 'fast-check';
import {
  documentState,
  type Annotation,
  type DocumentPage,
  type DocumentState,
  type Effect,
  type Landmark,
  type Reply,
  type TextBox,
} from '../index';

/** Few ids, so that effects meet. */
export const idOf = (n: number): string => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const NOW = '2026-09-01T08:00:00.000Z';
const ids = fc.integer({ min: 1, max: 5 }).map(idOf);
const pageIds = fc.integer({ min: 91, max: 93 }).map(idOf);
const order = fc.constantFrom('a0', 'a1', 'a2');
const color = fc.constantFrom('#111111', '#222222');
const instrument = fc.constantFrom('nib' as const, 'highlighter' as const);
const modified = fc
  .integer({ min: 0, max: 59 })
  .map((s) => new Date(Date.parse(NOW) + s * 1000).toISOString());

const common = {
  id: ids,
  pageId: pageIds,
  order,
  color,
  opacity: fc.constant(1),
  author: fc.constant('A'),
  created: fc.constant(NOW),
  modified,
};

const ink: fc.Arbitrary<Annotation> = fc.record({
  ...common,
  kind: fc.constant('ink' as const),
  instrument,
  width: fc.constant(1),
  smoothing: fc.constant(0),
  samples: fc.constant(''),
});

const paragraphs = fc.array(
  fc.constantFrom('', 'high water', 'high waters', 'low water').map((text) => ({
    runs: text === '' ? [] : [{ text }],
  })),
  { minLength: 1, maxLength: 3 },
);

export const textBox: fc.Arbitrary<TextBox> = fc.record({
  ...common,
  kind: fc.constant('textBox' as const),
  look: fc.constant({ font: 'inter' as const, size: 12 }),
  paragraphs,
  frame: fc.constant({ padding: 4 }),
  size: fc.constant({ width: 90, height: 20 }),
  transform: fc.constant<TextBox['transform']>([1, 0, 0, 1, 0, 0]),
});

const note: fc.Arbitrary<Annotation> = fc.record({
  ...common,
  kind: fc.constant('note' as const),
  at: fc.constant({ x: 10, y: 10 }),
  paragraphs,
});

const { color: _color, ...uncolored } = common;
/** Of what is there or not, of each other, of themselves. */
export const reply: fc.Arbitrary<Reply> = fc.record({
  ...uncolored,
  kind: fc.constant('reply' as const),
  to: ids,
  paragraphs,
});

const landmark: fc.Arbitrary<Landmark> = fc.oneof(
  fc.record({
    kind: fc.constant('bookmark' as const),
    id: ids,
    place: fc.record({ pageId: pageIds }),
    title: fc.constantFrom('tide', 'ebb'),
    created: fc.constant(NOW),
  }),
  fc.record({
    kind: fc.constant('outline' as const),
    id: ids,
    order,
    title: fc.constantFrom('tide', 'ebb'),
    open: fc.boolean(),
  }),
);

const page: fc.Arbitrary<DocumentPage> = fc.record({
  id: pageIds,
  order,
  width: fc.constantFrom(100, 200),
  height: fc.constant(300),
  rotation: fc.constantFrom(0 as const, 90 as const),
  label: fc.constant(null),
  source: fc.constant('f'.repeat(64)),
  sourceIndex: fc.nat(2),
  hasMarks: fc.constant(false),
});

const annotationFields = fc.oneof(
  fc.record({ color, modified }),
  fc.record({ order, modified }),
  fc.record({ instrument, modified }),
  fc.record({ locked: fc.constantFrom(true, null), modified }),
  fc.record({ group: fc.oneof(fc.constant(null), ids), modified }),
);

/** What people do to annotations. */
export const annotationEffect: fc.Arbitrary<Effect> = fc.oneof(
  fc.record({
    type: fc.constant('annotation.add' as const),
    annotation: fc.oneof(ink, textBox, note, reply),
  }),
  fc.record(
    {
      type: fc.constant('annotation.change' as const),
      pageId: pageIds,
      annotationId: ids,
      fields: fc.record({ paragraphs, modified }),
      was: fc.record({ paragraphs }),
    },
    { requiredKeys: ['type', 'pageId', 'annotationId', 'fields'] },
  ),
  fc.record({
    type: fc.constant('annotation.change' as const),
    pageId: pageIds,
    annotationId: ids,
    fields: annotationFields,
  }),
  fc.record({
    type: fc.constant('annotation.remove' as const),
    pageId: pageIds,
    annotationId: ids,
  }),
);

/** Every type of effect there is. */
export const anyEffect: fc.Arbitrary<Effect> = fc.oneof(
  { weight: 3, arbitrary: annotationEffect },
  fc.record({ type: fc.constant('landmark.add' as const), landmark }),
  fc.record({
    type: fc.constant('landmark.change' as const),
    landmarkId: ids,
    fields: fc.oneof(fc.record({ title: fc.constantFrom('surf', 'swell') }), fc.record({ order })),
  }),
  fc.record({ type: fc.constant('landmark.remove' as const), landmarkId: ids }),
  fc.record({ type: fc.constant('page.add' as const), page }),
  fc.record({
    type: fc.constant('page.change' as const),
    pageId: pageIds,
    fields: fc.oneof(
      fc.record({ order }),
      fc.record({ rotation: fc.constantFrom(180 as const, 270 as const) }),
      fc.record({ beside: fc.constantFrom(null, { documentId: idOf(7), pageId: idOf(8) }) }),
    ),
  }),
  fc.record({ type: fc.constant('page.remove' as const), pageId: pageIds }),
  fc.record({
    type: fc.constant('document.rename' as const),
    title: fc.constantFrom('One', 'Two'),
  }),
);

/** What a document holds, without pages that hold nothing. */
export function contentsOf(state: DocumentState): DocumentState {
  const filled = Object.entries(state.annotations).filter(([, on]) => Object.keys(on).length > 0);
  return { ...documentState(state.title, []), ...state, annotations: Object.fromEntries(filled) };
}
