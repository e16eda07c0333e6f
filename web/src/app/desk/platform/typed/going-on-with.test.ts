import type { Paragraph } from '@stylet/core/typed';
import fc from 'fast-check';
import { EditorState, TextSelection } from 'prosemirror-state';
import { goOnWith } from './going-on-with';
import { docOf, paragraphsOf } from './rich-model';

const lines = (...texts: string[]): Paragraph[] =>
  texts.map((text) => ({ runs: text === '' ? [] : [{ text }] }));

const paragraphs = fc.array(
  fc
    .record(
      {
        text: fc.string({ unit: fc.constantFrom('a', 'b', ' '), maxLength: 6 }),
        list: fc.constant('bullet' as const),
      },
      { requiredKeys: ['text'] },
    )
    .map(({ text, ...look }): Paragraph => ({ ...look, runs: text === '' ? [] : [{ text }] })),
  { minLength: 1, maxLength: 4 },
);

test('a text becomes another, whatever both are', () => {
  fc.assert(
    fc.property(paragraphs, paragraphs, (before, after) => {
      const state = EditorState.create({ doc: docOf(before) });
      const { doc } = state.apply(goOnWith(state.tr, docOf(after)));
      expect(paragraphsOf(doc)).toEqual(after);
    }),
  );
});

test.each([
  ['before it in its paragraph', ['high| water'], ['Spring: high water'], 'Spring: high'],
  ['behind it in its paragraph', ['high| water'], ['high waters'], 'high'],
  [
    'in other paragraphs, before and behind',
    ['one', 'two|', 'three'],
    ['one more', 'two', 'three!'],
    'two',
  ],
  ['in its paragraph and another', ['one', 'tw|o'], ['one more', '+ two'], '+ tw'],
  ['a paragraph before it', ['two|'], ['one', 'two'], 'two'],
])('the caret stays where it is among its words: others type %s', (_, before, after, wanted) => {
  const at = before.findIndex((text) => text.includes('|'));
  const state = EditorState.create({
    doc: docOf(lines(...before.map((text) => text.replace('|', '')))),
  });
  let start = 1;
  state.doc.forEach((_node, offset, i) => {
    if (i === at) start = offset + 1;
  });
  const caret = TextSelection.create(state.doc, start + before[at].indexOf('|'));
  const placed = state.apply(state.tr.setSelection(caret));
  const { selection } = placed.apply(goOnWith(placed.tr, docOf(lines(...after))));
  expect(selection.empty).toBe(true);
  expect(selection.$from.parent.textContent.slice(0, selection.$from.parentOffset)).toBe(wanted);
});
