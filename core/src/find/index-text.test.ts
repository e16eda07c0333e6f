import fc from 'fast-check';
import type { Line, Word } from '../text/index';
import {
  closest,
  editDistance,
  fold,
  foldedText,
  isAlone,
  packWords,
  pageWords,
  parseQuery,
  piecesOf,
  scoreNamed,
  scorePage,
  searchableText,
  slipsIn,
  termPlaces,
  tokensOf,
  unpackWords,
  weightsOf,
} from './index';

const options = { keepsCase: false, wholeWords: false };
const pieces = (text: string): string[] => tokensOf(fold(text).text).map((token) => token.text);

test('text is cut into runs of letters and digits, and by the character where there are no spaces', () => {
  expect(pieces('The 32.3 feet, can’t_be “wave-height”')).toEqual([
    'the',
    '32',
    '3',
    'feet',
    'can',
    't_be',
    'wave',
    'height',
  ]);
  expect(pieces('潮汐表 3章')).toEqual(['潮', '汐', '表', '3', '章']);
  expect(isAlone('潮')).toBe(true);
  expect(isAlone('a')).toBe(false);
});

// UAX #29 as ICU has it, which Node's Intl.Segmenter is made of.
test('whole words are those between the word boundaries of UAX #29', () => {
  const segmenter = new Intl.Segmenter('en', { granularity: 'word' });
  const texts = [
    'The quick (“brown”) fox can’t jump 32.3 feet, right?',
    "it's the groyne's end; 1,000.5 m or 3.14, e.g. x.y",
    'tide_gauge 2026-11 north-west a.m. foo:bar 5:30',
  ];
  for (const text of texts) {
    const folded = fold(text).text;
    const theirs = [...segmenter.segment(folded)]
      .filter(({ isWordLike }) => isWordLike)
      .map(({ segment, index }) => ({ segment, index }));
    for (const { segment, index } of theirs) {
      const page = searchableText(text);
      const query = { terms: [segment], without: [], options: { ...options, wholeWords: true } };
      const whole = termPlaces(page, query)?.[0] ?? [];
      expect(whole.map(({ start }) => start)).toContain(index);
      const all = theirs.filter((other) => other.segment === segment);
      expect(whole).toHaveLength(all.length);
    }
  }
});

test('a query that is more than its pieces says so', () => {
  expect(piecesOf('berm crest')).toEqual({ pieces: ['berm', 'crest'], hasMore: false });
  expect(piecesOf('潮汐')).toEqual({ pieces: ['潮', '汐'], hasMore: false });
  expect(piecesOf('v2.0')).toEqual({ pieces: ['v2', '0'], hasMore: true });
  expect(piecesOf('c++')).toEqual({ pieces: ['c'], hasMore: true });
  expect(piecesOf('->')).toEqual({ pieces: [], hasMore: true });
});

const number = fc.double({ min: -2000, max: 5000, noNaN: true });
const word = fc
  .record({ text: fc.string({ minLength: 1, maxLength: 12 }), x: number, y: number })
  .filter(({ text }) => !/\s/.test(text))
  .map(({ text, x, y }): Word => ({
    text,
    box: { x0: x, y0: y, x1: x + 10.25, y1: y + 8.5 },
    angle: 0,
    size: 10,
    bold: false,
  }));
const lines = fc.array(
  fc.array(word, { minLength: 1, maxLength: 8 }).map((words): Line => {
    const { box } = words[0];
    return { words, box, frame: box, angle: 0 };
  }),
);

test('packed words come back, to 1/100 pt', () => {
  fc.assert(
    fc.property(lines, (page) => {
      const words = pageWords(page);
      const back = unpackWords(packWords(words));
      expect([...back.starts]).toEqual([...words.starts]);
      expect(back.boxes).toHaveLength(words.boxes.length);
      back.boxes.forEach((edge, i) => expect(Math.abs(edge - words.boxes[i])).toBeLessThan(0.0105));
    }),
  );
});

test('packed words that are cut off or not ours are refused', () => {
  const bytes = packWords({ starts: Int32Array.of(0, 4), boxes: new Float32Array(10) });
  expect(() => unpackWords(bytes.subarray(0, bytes.length - 1))).toThrow('ends too early');
  expect(() => unpackWords(Uint8Array.of(9))).toThrow('unknown version');
  expect(() => unpackWords(Uint8Array.of(1, 200, 1))).toThrow('cannot be in');
});

test('folding a whole text and its pieces comes to the same', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), fc.boolean(), (text, keepsCase) => {
      const { text: folded, from } = fold(text, keepsCase);
      expect(foldedText(text, keepsCase)).toBe(folded);
      expect(from).toHaveLength(folded.length);
    }),
  );
});

// F. Damerau, “A technique for computer detection and correction of spelling errors”, CACM 7 (1964): one
// letter wrong, missing, too many, or two swapped. “ca” and “abc” tell the restricted distance from the full one.
test.each([
  ['tide', 'tode', 1],
  ['tide', 'tde', 1],
  ['tide', 'tiide', 1],
  ['tide', 'itde', 1],
  ['kitten', 'sitting', 3],
  ['ca', 'abc', 3],
  ['', 'ab', 2],
])('“%s” and “%s” are %i apart', (a, b, distance) => {
  expect(editDistance(a, b, 9)).toBe(distance);
  expect(editDistance(b, a, 9)).toBe(distance);
  expect(editDistance(a, b, 0)).toBe(Math.min(distance, 1));
});

test('the more letters, the more slips', () => {
  expect(['dun', 'dune', 'salinity'].map(slipsIn)).toEqual([0, 1, 2]);
});

const score = (text: string, typed: string, pagesWith: number[]): number =>
  scorePage(
    searchableText(text),
    parseQuery(typed, options)!,
    weightsOf({ pages: 1000, pagesWith }),
  )!;

test('pages with the rare word, with more of it, and with the words side by side come first', () => {
  const filler = ' and so on'.repeat(60);
  expect(score(`berm berm${filler}`, 'berm', [9])).toBeGreaterThan(
    score(`berm${filler}`, 'berm', [9]),
  );
  expect(score('berm', 'berm', [3])).toBeGreaterThan(score('berm', 'berm', [300]));
  expect(score(`berm crest${filler}`, 'berm crest', [9, 9])).toBeGreaterThan(
    score(`berm${filler} crest`, 'berm crest', [9, 9]),
  );
  expect(weightsOf({ pages: 10, pagesWith: [10, 99] }).every((weight) => weight > 0)).toBe(true);
});

test('what is called just so comes before what has it in its name, and before mere text', () => {
  const query = parseQuery('berm', options)!;
  const weights = weightsOf({ pages: 100, pagesWith: [10] });
  const named = (text: string): number =>
    scoreNamed('outline', searchableText(text), query, weights)!;
  expect(named('The berm')).toBeGreaterThan(named('How the berm was measured'));
  expect(named('Berm')).toBeGreaterThan(
    scorePage(searchableText('berm '.repeat(80)), query, weights)!,
  );
  expect(scoreNamed('outline', searchableText('Dunes'), query, weights)).toBeUndefined();
});

test('the shortest stretch with all terms is found', () => {
  const page = searchableText('tide far away from the berm, then a tide, a berm');
  const places = termPlaces(page, parseQuery('berm tide', options)!)!;
  const { start, end } = closest(places);
  expect(page.text.slice(start, end)).toBe('tide, a berm');
});
