import fc from 'fast-check';
import { isSame } from '../same/index';
import { LONGEST_TEXT, bodySchema, type Paragraph } from './body';
import { mergedParagraphs } from './merge';

const lines = (...texts: string[]): Paragraph[] =>
  texts.map((text) => ({ runs: text === '' ? [] : [{ text }] }));

const textsOf = (paragraphs: readonly Paragraph[]): string[] =>
  paragraphs.map(({ runs }) => runs.map(({ text }) => text).join(''));

const merged = (base: string[], theirs: string[], ours: string[]): string[] =>
  textsOf(mergedParagraphs(lines(...base), lines(...theirs), lines(...ours)));

const run = fc.record(
  {
    text: fc.string({
      unit: fc.constantFrom('a', 'b', ' ', '😀', 'é', '\n'),
      minLength: 1,
      maxLength: 6,
    }),
    look: fc.record({ bold: fc.constant(true), size: fc.integer({ min: 8, max: 10 }) }),
  },
  { requiredKeys: ['text'] },
);
/** Of runs of one look beside each other there is one. */
const runs = fc
  .array(run, { maxLength: 3 })
  .map((all) => all.filter(({ look }, i) => i === 0 || !isSame(look, all[i - 1].look)));
const paragraphs = fc.array(fc.record({ runs, indent: fc.nat(2) }), {
  minLength: 1,
  maxLength: 4,
});

test('what only one has changed is as they made it; what both made alike is there once', () => {
  fc.assert(
    fc.property(paragraphs, paragraphs, (base, other) => {
      expect(mergedParagraphs(base, other, base)).toEqual(other);
      expect(mergedParagraphs(base, base, other)).toEqual(other);
      expect(mergedParagraphs(base, other, other)).toEqual(other);
    }),
  );
});

test('every letter that either added is there, in its order, and the text is one that may be', () => {
  const letters = fc.string({ unit: fc.constantFrom('x', 'y', ' '), maxLength: 8 });
  const place = fc.nat(12);
  fc.assert(
    fc.property(letters, letters, place, place, (theirs, ours, at, other) => {
      const base = 'the gauge is';
      const put = (what: string, where: number): string =>
        base.slice(0, where) + what.toUpperCase() + base.slice(where);
      const [text] = merged([base], [put(theirs, at)], [put(ours, other)]);
      const added = text.replace(/[^XY]/g, '');
      const wanted = [theirs, ours].map((one) => one.toUpperCase().replace(/[^XY]/g, ''));
      expect([wanted.join(''), wanted.toReversed().join(''), wanted[0]]).toContain(added);
      expect(text.replace(/[XY ]/g, '')).toBe('thegaugeis');
    }),
  );
  fc.assert(
    fc.property(paragraphs, paragraphs, paragraphs, (base, theirs, ours) => {
      const body = {
        look: { font: 'serif', size: 12, color: '#000000' },
        paragraphs: mergedParagraphs(base, theirs, ours),
      };
      expect(bodySchema.shape.paragraphs.safeParse(body.paragraphs).success).toBe(true);
    }),
  );
});

// As Git merges lines that are not beside each other: git-merge-file(1), examples of our own.
test.each([
  [
    'two paragraphs',
    ['one', 'two'],
    ['one more', 'two'],
    ['one', 'two, too'],
    ['one more', 'two, too'],
  ],
  [
    'two words of a line',
    ['high water'],
    ['very high water'],
    ['high waters'],
    ['very high waters'],
  ],
  ['a paragraph before, letters behind', ['b'], ['a', 'b'], ['bc'], ['a', 'bc']],
  ['a paragraph parted, its end changed', ['ab'], ['a', 'b'], ['abc'], ['a', 'bc']],
  [
    'a word gone, another come',
    ['low tide at noon'],
    ['tide at noon'],
    ['low tide at noon sharp'],
    ['tide at noon sharp'],
  ],
  ['both at the end', ['tide'], ['tide table'], ['tide gauge'], ['tide table gauge']],
  ['a word that goes on stays whole', ['tid'], ['tid at noon'], ['tide'], ['tide at noon']],
  ['a word that both put otherwise stays twice', ['dog'], ['cat'], ['hen'], ['cathen']],
  ['signs of two code units stay whole', ['😀'], ['😁'], ['😂'], ['😁😂']],
])('%s', (_, base, theirs, ours, wanted) => {
  expect(merged(base, theirs, ours)).toEqual(wanted);
});

test('looks of letters and of paragraphs go with what others type there', () => {
  const base: Paragraph[] = [{ runs: [{ text: 'spring tide' }] }];
  const bold: Paragraph[] = [
    { list: 'bullet', runs: [{ text: 'spring tide', look: { bold: true } }] },
  ];
  const typed: Paragraph[] = [{ runs: [{ text: 'a spring tide' }] }];
  const wanted: Paragraph[] = [
    { list: 'bullet', runs: [{ text: 'a ' }, { text: 'spring tide', look: { bold: true } }] },
  ];
  expect(mergedParagraphs(base, bold, typed)).toEqual(wanted);
  expect(mergedParagraphs(base, typed, bold)).toEqual(wanted);
});

test('in which order fields are kept changes nothing: a database keeps them in one of its own', () => {
  const base: Paragraph[] = [{ runs: [{ text: 'ebb', look: { bold: true, size: 9 } }] }];
  const theirs: Paragraph[] = [{ runs: [{ text: 'ebb', look: { bold: true, size: 12 } }] }];
  const ours: Paragraph[] = [{ runs: [{ text: 'ebbs', look: { size: 9, bold: true } }] }];
  expect(mergedParagraphs(base, theirs, ours)).toEqual([
    {
      runs: [
        { text: 'ebb', look: { bold: true, size: 12 } },
        { text: 's', look: { bold: true, size: 9 } },
      ],
    },
  ]);
  const known: Paragraph[] = [{ runs: [{ text: 'ebbs', look: { bold: true, size: 9 } }] }];
  expect(mergedParagraphs(known, ours, base)).toBe(base);
});

test('where both together are too long, what came last stands', () => {
  const half = 'x'.repeat(LONGEST_TEXT - 10);
  const other = 'y'.repeat(LONGEST_TEXT - 10);
  expect(merged(['z'], [half], [other])).toEqual([other]);
});
