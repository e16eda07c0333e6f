import {
  between,
  joinLines,
  lineAt,
  linesOf,
  joinMarks,
  pageText,
  type PageText,
  splitMark,
  uprightFrame,
  wordsOf,
  type Glyph,
  type TextAngle,
  type Word,
} from './index';
import fc from 'fast-check';
import { newId, type Markup } from '../document/index';
import { inverse, transformBox } from '../geometry/index';

const word = (text: string, x: number, y: number, width = text.length * 5): Word => ({
  text,
  box: { x0: x, y0: y, x1: x + width, y1: y + 10 },
  angle: 0,
  size: 10,
  bold: false,
});
const glyphs = (text: string, x: number, y: number, gap = 0): Glyph[] =>
  [...text].map((c, i) => ({
    text: c,
    box: { x0: x + i * (5 + gap), y0: y, x1: x + i * (5 + gap) + 5, y1: y + 10 },
    angle: 0,
    size: 10,
    bold: false,
  }));
const read = (words: Word[]): string[] =>
  linesOf(words).map((line) => line.words.map((w) => w.text).join(' '));

test('gaps, white space and new baselines part words; close letters stay together', () => {
  const words = wordsOf([
    ...glyphs('tide', 0, 0),
    ...glyphs('table', 23, 0),
    ...glyphs(' x', 48, 0),
    ...glyphs('low', 0, 14),
  ]);
  expect(words.map((w) => w.text)).toEqual(['tide', 'table', 'x', 'low']);
  expect(wordsOf(glyphs('wave', 0, 0, 0.5)).map((w) => w.text)).toEqual(['wave']);
});

test('ligatures are read as their letters (Unicode UAX #15, NFKC)', () => {
  expect(wordsOf(glyphs('ﬁne', 0, 0))[0].text).toBe('fine');
});

test('characters of scripts without spaces are words of their own, and are put together without any', () => {
  const words = wordsOf([...glyphs('潮汐、第3章 tide', 0, 0)]);
  expect(words.map((w) => w.text)).toEqual(['潮', '汐、', '第', '3', '章', 'tide']);
  const page = pageText(linesOf([...words, ...wordsOf(glyphs('表は', 0, 14))]));
  expect(page.rangeOf(between(0, page.length - 1)).contents).toBe('潮汐、第 3 章 tide 表は');
  // A word of Chinese that goes on in the next line.
  expect(joinLines(['これは潮', '汐表です。'])).toBe('これは潮汐表です。');
  expect(joinLines(['the ebb', 'tide'])).toBe('the ebb tide');
});

test('two columns are read one after the other, below a title that spans both', () => {
  const column = (x: number, name: string): Word[] =>
    Array.from({ length: 5 }, (_, i) => word(`${name}${i}longenough`, x, 40 + i * 14, 90));
  const words = [word('Title', 0, 0, 210), ...column(0, 'a'), ...column(120, 'b')];
  const mixed = [...words].sort((p, q) => p.box.y0 - q.box.y0 || p.box.x0 - q.box.x0);
  expect(read(mixed)).toEqual([
    'Title',
    ...[0, 1, 2, 3, 4].map((i) => `a${i}longenough`),
    ...[0, 1, 2, 3, 4].map((i) => `b${i}longenough`),
  ]);
});

test.each([0, 90, 180, 270] as TextAngle[])('text at %i° is read in its own direction', (angle) => {
  const back = inverse(uprightFrame(angle));
  const turned = [word('first', 0, 0), word('second', 30, 0), word('third', 0, 14)].map((w) => ({
    ...w,
    angle,
    box: transformBox(back, w.box),
  }));
  expect(read(turned)).toEqual(['first second', 'third']);
});

const lines = linesOf([
  word('Once', 0, 0),
  word('the', 25, 0),
  word('depth', 45, 0),
  word('is', 0, 14),
  word('below', 15, 14),
]);

const text = pageText(lines);

const marked = (page: PageText, ...way: [number, number][]): string =>
  page.rangeOf(page.highlighted(way.map(([x, y]) => ({ x, y }))) ?? []).contents;

test('a stroke from word to word marks the words between, as high as their lines', () => {
  const range = text.rangeOf(
    text.highlighted([
      { x: 26, y: 5 },
      { x: 39, y: 20 },
    ])!,
  );
  expect(range.contents).toBe('the depth is below');
  expect(range.quads).toEqual([
    [25, 0, 70, 0, 25, 10, 70, 10],
    [0, 14, 40, 14, 0, 24, 40, 24],
  ]);
});

test('it makes no difference which end comes first', () => {
  expect(marked(text, [39, 20], [26, 5])).toBe('the depth is below');
  expect(marked(text, [69, 5], [26, 5])).toBe('the depth');
});

test('off the text there is nothing to mark; beside it there is when the stroke goes on over it', () => {
  expect(lineAt(lines, { x: 30, y: 60 })).toBeUndefined();
  expect(
    text.highlighted([
      { x: 200, y: 5 },
      { x: 30, y: 5 },
    ]),
  ).toBeUndefined();
  expect(marked(text, [-15, 5], [18, 6])).toBe('Once');
  // A bar in the margin, down the lines.
  expect(
    text.highlighted([
      { x: -6, y: 0 },
      { x: -6, y: 24 },
    ]),
  ).toBeUndefined();
});

test('a level stroke between two lines means the nearer one; a word hardly touched is not meant', () => {
  expect(marked(text, [0, 10.5], [72, 10.5])).toBe('Once the depth');
  expect(marked(text, [0, 13.5], [72, 13.5])).toBe('is below');
  expect(marked(text, [0, 5], [25.5, 5])).toBe('Once');
  expect(marked(text, [19, 5], [43, 5])).toBe('the');
});

const column = (name: string, x: number): Word[] =>
  Array.from({ length: 6 }, (_, i) => word(`${name}${i}`, x, 30 + i * 14, i === 5 ? 40 : 100));

test('a mark keeps to the column it began in, however far it ends in the gutter or in the next one', () => {
  const columns = pageText(
    linesOf([
      word('Title', 0, 0, 220),
      ...column('a', 0),
      ...column('b', 120),
      word('foot', 0, 140, 220),
    ]),
  );
  expect(marked(columns, [2, 49], [114, 63])).toBe('a1 a2');
  expect(marked(columns, [2, 49], [180, 63])).toBe('a1 a2');
  expect(marked(columns, [122, 49], [230, 105])).toBe('b1 b2 b3 b4 b5');
  expect(marked(columns, [116, 50], [180, 50])).toBe('b1');
});

const row = (y: number, cells: readonly string[]): Word[] =>
  cells.map((text, i) => word(text, i * 80, y, 30));

test('a mark keeps to the cell of a table, or to the cells below it, until a line runs over them all', () => {
  const table = pageText(
    linesOf(
      [
        word('heading', 0, 0, 190),
        ...row(14, ['depth', 'tide', 'hour']),
        ...row(28, ['1.2', 'ebb', '08:10']),
        // A cell of two lines, and an empty one.
        ...row(42, ['0.8', 'slack', '']),
        word('water', 80, 56, 30),
        word('below', 0, 70, 190),
      ].filter(({ text }) => text !== ''),
    ),
  );
  expect(marked(table, [81, 33], [112, 33])).toBe('ebb');
  expect(marked(table, [81, 33], [150, 34])).toBe('ebb');
  expect(marked(table, [81, 33], [180, 61])).toBe('ebb slack water');
  expect(marked(table, [1, 19], [20, 90])).toBe('depth 1.2 0.8');
});

test('the sign of an entry stands in one line with its text', () => {
  expect(read([word('•', 0, 0, 4), word('bring', 30, 0), word('boots', 58, 0)])).toEqual([
    '• bring boots',
  ]);
});

test('cells that stand close beside each other are parted by a gap that is unusual', () => {
  const even = (y: number, gap: number): Word[] =>
    ['one', 'two', 'three', 'four', 'five'].map((w, i) => word(w, i * (20 + gap), y, 20));
  const cells = pageText(linesOf([...even(0, 3), word('cell', 121, 0)]));
  expect(marked(cells, [1, 5], [130, 5])).toBe('one two three four five');
  // Spaced out to fill its column; and the number of a heading.
  const spaced = pageText(linesOf([...even(0, 3), ...even(14, 11)]));
  expect(marked(spaced, [1, 19], [130, 19])).toBe('one two three four five');
  const heading = pageText(linesOf([word('3.1', 0, 0), word('Tides', 26, 0), ...even(20, 3)]));
  expect(marked(heading, [1, 5], [50, 5])).toBe('3.1 Tides');
});

test('a word broken at a line’s end is joined again; a compound is not broken', () => {
  expect(joinLines(['the long-', 'shore drift', 'of the spit'])).toBe(
    'the longshore drift of the spit',
  );
  expect(joinLines(['two-', 'Way'])).toBe('two- Way');
});

const mark = (from: number, to: number, color = '#ffe27a'): Markup => ({
  kind: 'highlight',
  id: newId(),
  pageId: newId(),
  order: 'a0',
  color,
  opacity: 1,
  author: '',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  ...text.rangeOf(between(from, to)),
});

test('marks of one kind and colour that share a word become one; others stay', () => {
  const [first, touching, far, blue] = [mark(0, 1), mark(3, 3), mark(4, 4), mark(2, 2, '#b9ddf7')];
  const joined = joinMarks(text, mark(1, 3), [first, touching, far, blue]);
  expect(joined.replaces).toEqual([first, touching]);
  expect(joined.range.contents).toBe('Once the depth is');
  // Through the second mark the third is reached too.
  const chain = joinMarks(text, mark(0, 0), [mark(1, 3), mark(0, 1)]);
  expect(chain.replaces).toHaveLength(2);
  expect(chain.range.contents).toBe('Once the depth is');
});

test('taking words out of a mark leaves a mark on either side', () => {
  const parts = splitMark(text, mark(0, 4), [2]).map(({ contents }) => contents);
  expect(parts).toEqual(['Once the', 'is below']);
  expect(splitMark(text, mark(0, 1), [0, 1, 2])).toEqual([]);
});

test('the words under a mark are those it was made of', () => {
  fc.assert(
    fc.property(fc.nat(4), fc.nat(4), (a, b) => {
      const words = between(a, b);
      expect(text.covered(text.rangeOf(words).quads)).toEqual(words);
    }),
  );
});
