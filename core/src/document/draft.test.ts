import fc from 'fast-check';
import {
  apply,
  applyAll,
  documentState,
  invert,
  paintingOrder,
  removalOf,
  type Annotation,
  type Effect,
} from './index';
import { anyEffect } from './testing/index';

const id = (n: number): string => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const ink = (annotationId: string, pageId: string, order: string): Annotation => ({
  kind: 'ink',
  id: annotationId,
  pageId,
  order,
  color: '#22304a',
  opacity: 1,
  author: 'A',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  instrument: 'nib',
  width: 1,
  smoothing: 0,
  samples: '',
});
test('many effects at once come to what they do one by one, painting order included', () => {
  fc.assert(
    fc.property(
      fc.array(anyEffect, { maxLength: 30 }),
      fc.array(anyEffect, { maxLength: 30 }),
      (first, then) => {
        const start = first.reduce(apply, documentState('Zero', []));
        for (const page of Object.values(start.annotations)) paintingOrder(page);
        const frozen = JSON.stringify(start);
        const [one, all] = [then.reduce(apply, start), applyAll(start, then)];
        expect(all).toEqual(one);
        for (const pageId of Object.keys(one.annotations))
          expect(paintingOrder(all.annotations[pageId])).toEqual(
            paintingOrder(one.annotations[pageId]),
          );
        expect(JSON.stringify(start)).toBe(frozen);
      },
    ),
  );
});

test('a field that was not there goes again when its change is undone', () => {
  const start = documentState('', [ink(id(1), id(91), 'a0')]);
  const change: Effect = {
    type: 'annotation.change',
    pageId: id(91),
    annotationId: id(1),
    fields: { group: id(7), transform: [1, 0, 0, 1, 3, 4] },
  };
  const after = apply(start, change);
  expect(after.annotations[id(91)][id(1)]).toMatchObject({ group: id(7) });
  expect(apply(after, invert(start, change)!)).toEqual(start);
});

test('links of the file that are removed together show no more, and again when that is undone', () => {
  const link = (id: string): Annotation => ({
    kind: 'link',
    id,
    pageId: 'p',
    order: 'a1',
    opacity: 1,
    author: '',
    created: '',
    modified: '',
    quads: [],
    contents: '',
    target: { address: 'https://tidewater.example' },
    origin: { object: 1, generation: 0, modified: '' },
  });
  const links = [link('a'), link('b')];
  const before = documentState('', links);
  expect(paintingOrder(before.annotations['p'])).toHaveLength(2);
  const gone = applyAll(before, links.map(removalOf));
  expect(paintingOrder(gone.annotations['p'])).toEqual([]);
  const back = links.map(({ id }) => ({
    type: 'annotation.change' as const,
    pageId: 'p',
    annotationId: id,
    fields: { target: { address: 'https://tidewater.example' } },
  }));
  expect(paintingOrder(applyAll(gone, back).annotations['p'])).toHaveLength(2);
});
