import { documentState, type Annotation, type Effect } from '@stylet/core/document';
import { repliesAlong } from './replies-along';

const [ONE, OTHER] = ['page 1', 'page 2'];
const on = (pageId: string, id: string, to?: string): Annotation =>
  ({ kind: to === undefined ? 'note' : 'reply', id, pageId, order: 'a0', to }) as never;
const state = documentState('', [
  on(ONE, 'note'),
  on(ONE, 'reply', 'note'),
  on(ONE, 'answer', 'reply'),
  on(ONE, 'other'),
  on(ONE, 'to other', 'other'),
]);
const remove = (annotationId: string): Effect => ({
  type: 'annotation.remove',
  pageId: ONE,
  annotationId,
});
const put = (pageId: string, id: string): Effect => ({
  type: 'annotation.add',
  annotation: on(pageId, id),
});
const along = (...effects: Effect[]): unknown[] =>
  repliesAlong(state, effects).map((effect) =>
    effect.type === 'annotation.add'
      ? ['to', effect.annotation.pageId, effect.annotation.id]
      : effect.type === 'annotation.remove' && ['gone', effect.annotationId],
  );

test('replies go with what they answer, and those to them', () => {
  expect(along(remove('note'))).toEqual([
    ['gone', 'reply'],
    ['gone', 'answer'],
  ]);
  expect(along(remove('reply'))).toEqual([['gone', 'answer']]);
  expect(along(remove('note'), remove('reply'), remove('answer'))).toEqual([]);
});

test('they move to another page with it, and stay where it is only put anew', () => {
  expect(along(remove('note'), put(OTHER, 'note'))).toEqual([
    ['to', OTHER, 'reply'],
    ['to', OTHER, 'answer'],
  ]);
  expect(along(put(OTHER, 'note'), put(OTHER, 'other'))).toEqual([
    ['to', OTHER, 'reply'],
    ['to', OTHER, 'answer'],
    ['to', OTHER, 'to other'],
  ]);
  expect(along(remove('note'), put(ONE, 'note'))).toEqual([]);
  expect(along(put(ONE, 'new'))).toEqual([]);
});
