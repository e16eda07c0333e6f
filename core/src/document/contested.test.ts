import fc from 'fast-check';
import { contested, newId, type Effect, type Operation } from './index';
import { anyEffect, idOf } from './testing/index';

const documentId = idOf(900);
const made = (effect: Effect): Operation => ({
  id: newId(),
  documentId,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect,
});
const change = (n: number, fields: object): Operation =>
  made({
    type: 'annotation.change',
    pageId: idOf(91),
    annotationId: idOf(n),
    fields: { modified: `2026-09-01T08:00:0${n}.000Z`, ...fields },
  });
const remove = (n: number): Operation =>
  made({ type: 'annotation.remove', pageId: idOf(91), annotationId: idOf(n) });
const rename = (title: string): Operation => made({ type: 'document.rename', title });

test('the same field of the same thing, set differently, is contested', () => {
  const blue = change(1, { color: '#0000ff' });
  expect(contested([blue], [change(1, { color: '#ff0000' })])).toEqual([idOf(1)]);
  expect(contested([blue], [change(1, { color: '#0000ff' })])).toEqual([]);
  expect(contested([blue], [change(1, { order: 'a5' })])).toEqual([]);
  expect(contested([blue], [change(2, { color: '#ff0000' })])).toEqual([]);
  expect(contested([rename('Tide')], [rename('Ebb')])).toEqual([documentId]);
});

test('removing is contested by changing, not by removing', () => {
  expect(contested([remove(1)], [change(1, { order: 'a5' })])).toEqual([idOf(1)]);
  expect(contested([change(1, { order: 'a5' })], [remove(1)])).toEqual([idOf(1)]);
  expect(contested([remove(1)], [remove(1)])).toEqual([]);
});

test('words that are put together are not contested; other fields, and what is removed, are', () => {
  const typed = (text: string, fields: object = {}): Operation => {
    const paragraphs = [{ runs: [{ text }] }];
    const { effect } = change(1, {
      paragraphs,
      size: { width: text.length, height: 9 },
      ...fields,
    });
    return made({ ...effect, was: { paragraphs: [{ runs: [] }] } } as Effect);
  };
  expect(contested([typed('ebb')], [typed('flood')])).toEqual([]);
  expect(contested([typed('ebb')], [remove(1)])).toEqual([idOf(1)]);
  const [red, blue] = ['#ff0000', '#0000ff'];
  expect(contested([typed('ebb', { color: red })], [typed('flood', { color: blue })])).toEqual([
    idOf(1),
  ]);
});

test('of several changes the last counts', () => {
  const mine = [change(1, { color: '#ff0000' }), change(1, { color: '#0000ff' })];
  expect(contested(mine, [change(1, { color: '#0000ff' })])).toEqual([]);
});

test('nobody is at odds with what he did himself, and both see the same', () => {
  const operations = fc.array(anyEffect, { maxLength: 12 }).map((all) => all.map(made));
  fc.assert(
    fc.property(operations, operations, (one, other) => {
      expect(contested(one, one)).toEqual([]);
      expect(contested(one, other).sort()).toEqual(contested(other, one).sort());
    }),
  );
});
