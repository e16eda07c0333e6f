import { between, joinPages, linesOf, PageText, type Word } from './index';

const word = (text: string, x: number, y: number, size = 10): Word => ({
  text,
  box: { x0: x, y0: y, x1: x + text.length * size * 0.5, y1: y + size },
  angle: 0,
  size,
  bold: false,
});
/** Words of a line, a space of 3 pt between them. */
function line(text: string, x: number, y: number, size = 10): Word[] {
  let at = x;
  return text.split(' ').map((part) => {
    const placed = word(part, at, y, size);
    at = placed.box.x1 + 3;
    return placed;
  });
}
const page = (...lines: Word[][]): PageText => new PageText(linesOf(lines.flat()));
const all = (text: PageText): string => text.copied(between(0, text.length - 1));

const prose = page(
  line('Chapter one', 0, 0, 16),
  line('The tide lifts the sand off the bar and', 0, 30),
  line('leaves it on the upper fore-', 0, 42),
  line('shore before it falls.', 0, 54),
  line('Waves do the rest on most of the shore', 12, 66),
  line('that we walked.', 0, 78),
);

test('paragraphs are copied as one line each, words parted at a line’s end joined', () => {
  expect(all(prose).split('\n')).toEqual([
    'Chapter one',
    'The tide lifts the sand off the bar and leaves it on the upper foreshore before it falls.',
    'Waves do the rest on most of the shore that we walked.',
  ]);
});

test('a word’s line and its paragraph', () => {
  const words = (at: number, what: 'line' | 'paragraph'): string =>
    prose.copied(between(...prose.around(at, what)));
  // “leaves” is the twelfth word.
  expect(words(11, 'line')).toBe('leaves it on the upper fore-');
  expect(words(11, 'paragraph')).toMatch(/^The tide .* falls\.$/);
  expect(words(0, 'paragraph')).toBe('Chapter one');
  expect(words(prose.length - 1, 'paragraph')).toMatch(/^Waves .* walked\.$/);
});

test('tables are copied row by row, tabs between their cells', () => {
  const cells = [
    ['Station', 'Depth', 'Grain size'],
    ['Groyne 4', '1.2', 'fine'],
    ['Outer bar', '3.7', 'coarse'],
  ];
  const text = page(
    ...cells.flatMap((row, r) => row.map((cell, c) => line(cell, 120 * c, 14 * r))),
  );
  expect(all(text)).toBe(cells.map((row) => row.join('\t')).join('\n'));
});

test('columns of prose are not taken for a table', () => {
  const text = page(
    ...Array.from({ length: 4 }, (_, i) => line('one two three four five six', 0, 12 * i)),
    ...Array.from({ length: 4 }, (_, i) => line('seven eight nine ten eleven twelve', 220, 12 * i)),
  );
  expect(all(text)).not.toContain('\t');
  expect(all(text).indexOf('seven')).toBeGreaterThan(all(text).lastIndexOf('six'));
});

test('pages are joined where a sentence goes on, and where a word is divided (common practice, no source)', () => {
  expect(joinPages(['The sea feels the', 'bed of the bay.'])).toBe(
    'The sea feels the bed of the bay.',
  );
  expect(joinPages(['It is a long wave-', 'length.\nNext.', 'And so on'])).toBe(
    'It is a long wavelength.\nNext.\nAnd so on',
  );
  expect(joinPages(['One ends.', 'another begins small'])).toBe('One ends.\nanother begins small');
  expect(joinPages(['', 'alone', ''])).toBe('alone');
});
