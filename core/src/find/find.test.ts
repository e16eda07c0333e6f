import fc from 'fast-check';
import type { Line, Word } from '../text/index';
import { fold, matchesOn, pageWords, parseQuery, searchable, type FindOptions } from './index';

const plain: FindOptions = { keepsCase: false, wholeWords: false };
const word = (text: string, x: number, y: number): Word => ({
  text,
  box: { x0: x, y0: y, x1: x + 10, y1: y + 10 },
  angle: 0,
  size: 10,
  bold: false,
});
const page = (...lines: string[]): Line[] =>
  lines.map((text, row) => {
    const words = text.split(' ').map((part, i) => word(part, 20 * i, 20 * row));
    return { words, box: words[0].box, frame: words[0].box, angle: 0 };
  });
const found = (lines: string[], typed: string, options: Partial<FindOptions> = {}): string[] => {
  const query = parseQuery(typed, { ...plain, ...options });
  if (!query) return [];
  const text = searchable(pageWords(page(...lines)), query.options.keepsCase);
  return matchesOn(text, query).map(({ match }) => match);
};

// UAX #15, figures 3 to 6: singletons, compositions and compatibility composites have one decomposition.
test.each([
  ['Å', 'Å'],
  ['ô', 'ô'],
  ['ṩ', 'ṩ'],
  ['ﬁ', 'fi'],
  ['2⁵', '25'],
  ['ẛ̣', 'ṡ'],
])('“%s” and “%s” are folded alike', (a, b) => {
  expect(fold(a).text).toBe(fold(b).text);
});

// CaseFolding.txt: full case folding.
test.each([
  ['Maße', 'MASSE'],
  ['ΣΊΣΥΦΟΣ', 'σίσυφος'],
  ['ﬄ', 'FFL'],
  ['ǅ', 'ǆ'],
])('case of “%s” and “%s” does not matter', (a, b) => {
  expect(fold(a).text).toBe(fold(b).text);
  expect(fold(a, true).text).not.toBe(fold(b, true).text);
});

test('what is folded says where each of its units was', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (text) => {
      const { text: folded, from } = fold(text);
      expect(from).toHaveLength(folded.length);
      from.forEach((at, i) => {
        expect(at).toBeLessThan(text.length);
        if (i > 0) expect(at).toBeGreaterThanOrEqual(from[i - 1]);
        const char = String.fromCodePoint(text.codePointAt(at)!);
        expect(fold(char).text).toContain(folded[i]);
      });
      expect(fold(folded).text).toBe(folded);
    }),
  );
});

test('words, phrases, several words, and what must not be there', () => {
  const lines = ['The tide lifts the', 'berm crest at night'];
  expect(found(lines, 'tide')).toEqual(['tide']);
  expect(found(lines, '"berm crest"')).toEqual(['berm crest']);
  expect(found(lines, '“the berm”')).toEqual(['the berm']);
  expect(found(lines, 'crest tide')).toEqual(['tide', 'crest']);
  expect(found(lines, 'tide flood')).toEqual([]);
  expect(found(lines, 'tide -night')).toEqual([]);
  expect(found(lines, 'tide -day')).toEqual(['tide']);
  expect(found(lines, '"tide lift')).toEqual(['tide lift']);
  expect(found(lines, '-tide')).toEqual([]);
  expect(found(lines, '  ')).toEqual([]);
});

test('case, whole words, accents, ligatures and hyphens at line ends', () => {
  const lines = ['The Swash swashes dépôt', 'of a ﬁne sedi-', 'ment, well-known co\u00adast'];
  expect(found(lines, 'swash')).toEqual(['Swash', 'swash']);
  expect(found(lines, 'swash', { wholeWords: true })).toEqual(['Swash']);
  expect(found(lines, 'Swash', { keepsCase: true })).toEqual(['Swash']);
  expect(found(lines, 'depot')).toEqual(['dépôt']);
  expect(found(lines, 'fine')).toEqual(['ﬁne']);
  expect(found(lines, 'sediment')).toEqual(['sediment']);
  expect(found(lines, 'well-known')).toEqual(['well-known']);
  expect(found(lines, 'coast')).toEqual(['coast']);
  expect(found(['潮汐と砂浜'], '砂浜')).toEqual(['砂浜']);
});

test('a hyphen at a line’s end parts a word, or was its own; elsewhere it counts', () => {
  const lines = ['the fore-', 'shore and the back-', 'shore, a foreshore'];
  expect(found(lines, 'foreshore')).toEqual(['foreshore', 'foreshore']);
  expect(found(lines, 'back-shore')).toEqual(['backshore']);
  expect(found(lines, 'fore-shore')).toEqual(['foreshore']);
  expect(found(['a foreshore'], 'fore-shore')).toEqual([]);
  expect(found(['fore\u00ad', 'shore'], 'foreshore')).toEqual(['foreshore']);
});

test('a match names the words it touches and shows what stands around it', () => {
  const query = parseQuery('"lifts the berm"', plain)!;
  const [match] = matchesOn(searchable(pageWords(page('The tide lifts the', 'berm crest'))), query);
  expect(match).toEqual({
    words: [2, 3, 4],
    before: 'The tide ',
    match: 'lifts the berm',
    after: ' crest',
  });
});

test('every place of a word is found, and nothing else', () => {
  const letters = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(fc.array(letters, { minLength: 1 }), letters, (words, wanted) => {
      const whole = found([words.join(' ')], wanted, { wholeWords: true });
      expect(whole).toHaveLength(words.filter((text) => text === wanted).length);
    }),
  );
});
