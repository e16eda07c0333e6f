import { apply, invert } from './apply';
import { historyAfter, noHistory, stands, type Reversal } from './history';
import { newId } from './ids';
import type { Markup } from './annotation';
import type { Effect } from './operation';
import { documentState } from './state';

const mark: Markup = {
  kind: 'highlight',
  id: newId(),
  pageId: newId(),
  order: 'a0',
  color: '#ffe27a',
  opacity: 1,
  author: '',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  quads: [[0, 0, 100, 0, 0, 10, 100, 10]],
  contents: 'the tide',
};
const { pageId, id } = mark;
const add: Effect = { type: 'annotation.add', annotation: mark };
const remove: Effect = { type: 'annotation.remove', pageId, annotationId: id };
const change = (color: string): Effect => ({
  type: 'annotation.change',
  pageId,
  annotationId: id,
  fields: { color, modified: '2026-09-01T09:00:00.000Z' },
});
const empty = documentState('Waves', []);
const filled = documentState('Waves', [mark]);

test('an effect stands right after it, and not once another went on from there', () => {
  expect(stands(apply(empty, add), add)).toBe(true);
  expect(stands(apply(filled, change('#bde8b2')), add)).toBe(false);
  expect(stands(apply(filled, remove), remove)).toBe(true);
  expect(stands(apply(apply(filled, remove), add), remove)).toBe(false);
  const green = apply(filled, change('#bde8b2'));
  expect(stands(green, change('#bde8b2'))).toBe(true);
  expect(stands(apply(green, change('#f9c0cb')), change('#bde8b2'))).toBe(false);
  expect(stands(apply(green, remove), change('#bde8b2'))).toBe(false);
  const renamed: Effect = { type: 'document.rename', title: 'Tides' };
  expect(stands(apply(empty, renamed), renamed)).toBe(true);
  expect(stands(filled, renamed)).toBe(false);
});

test('what takes an effect back stands too, so that it can be done again', () => {
  for (const [before, effect] of [
    [empty, add],
    [filled, remove],
    [filled, change('#bde8b2')],
  ] as const) {
    const back = invert(before, effect)!;
    const undone = apply(apply(before, effect), back);
    expect(stands(undone, back)).toBe(true);
  }
});

test('steps go from undo to redo and back; a new one forgets what was undone', () => {
  const step = (title: string): Reversal[] => [
    { effect: { type: 'document.rename', title }, of: { type: 'document.rename', title } },
  ];
  let history = historyAfter(noHistory, 'changed', step('a'));
  history = historyAfter(history, 'changed', step('b'));
  history = historyAfter(history, 'undone', step('c'));
  expect(history).toEqual({ undo: [step('a')], redo: [step('c')] });
  expect(historyAfter(history, 'redone', step('d'))).toEqual({
    undo: [step('a'), step('d')],
    redo: [],
  });
  expect(historyAfter(history, 'changed', step('e'))).toEqual({
    undo: [step('a'), step('e')],
    redo: [],
  });
});

test('undo and redo take the last of many steps, and leave the others', () => {
  const step = (title: string): Reversal[] => [
    { effect: { type: 'document.rename', title }, of: { type: 'document.rename', title } },
  ];
  const after = (kinds: readonly Parameters<typeof historyAfter>[1][]) =>
    kinds.reduce((history, kind, i) => historyAfter(history, kind, step(String(i))), noHistory);
  const made = ['changed', 'changed', 'changed', 'changed'] as const;
  expect(after([...made, 'undone'])).toEqual({
    undo: [step('0'), step('1'), step('2')],
    redo: [step('4')],
  });
  expect(after([...made, 'undone', 'undone', 'undone', 'redone'])).toEqual({
    undo: [step('0'), step('7')],
    redo: [step('4'), step('5')],
  });
});

test('what becomes of a stroke later is undone together with it, whatever was done meanwhile', () => {
  const drawn: Reversal[] = [{ effect: remove, of: add }];
  const other: Reversal[] = [
    {
      effect: { type: 'document.rename', title: 'a' },
      of: { type: 'document.rename', title: 'b' },
    },
  ];
  const marked: Reversal[] = [{ effect: add, of: remove }];
  let history = historyAfter(noHistory, 'changed', drawn);
  history = historyAfter(history, 'changed', other);
  expect(historyAfter(history, 'amended', marked)).toEqual({
    undo: [[...marked, ...drawn], other],
    redo: [],
  });
  expect(historyAfter(noHistory, 'amended', marked).undo).toEqual([marked]);
});

test('what amends nothing that was made here is a step of its own', () => {
  const drawn: Reversal[] = [{ effect: remove, of: add }];
  const history = historyAfter(noHistory, 'changed', drawn);
  const other = { ...change('#222222'), annotationId: newId() };
  const recoloured: Reversal[] = [{ effect: change('#111111'), of: other }];
  expect(historyAfter(history, 'amended', recoloured).undo).toEqual([drawn, recoloured]);
});

test('what goes on with what the last step was about is undone together with it', () => {
  const drawn: Reversal[] = [{ effect: remove, of: add }];
  const recoloured: Reversal[] = [{ effect: change('#111111'), of: change('#222222') }];
  const history = historyAfter(noHistory, 'changed', drawn);
  const one = historyAfter(history, 'amended', recoloured);
  expect(one.undo).toEqual([[...recoloured, ...drawn]]);
  expect(historyAfter(one, 'amended', recoloured).undo).toHaveLength(1);
  expect(historyAfter(one, 'changed', recoloured).undo).toHaveLength(2);
});
