import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { breaksOf } from './breaks';
import { directionsOf, visualOrder } from './directions';

const data = join(__dirname, '../../../.data/references/unicode-data/usr/share/unicode');

const file = (path: string): string[] =>
  readFileSync(join(data, path), 'utf8')
    .split('\n')
    .filter((line) => line !== '' && !line.startsWith('#'));

const fromHex = (codes: string): string =>
  codes
    .trim()
    .split(/\s+/)
    .map((code) => String.fromCodePoint(parseInt(code, 16)))
    .join('');

test('lines may end where Unicode’s LineBreakTest.txt says', () => {
  // Unicode 15.0, auxiliary/LineBreakTest.txt: ÷ where a line may end, × where not.
  const cases = file('auxiliary/LineBreakTest.txt');
  const wrong = cases.filter((line) => {
    const [signs] = line.split('#');
    const expected: number[] = [];
    let text = '';
    for (const part of signs.trim().split(/\s+/)) {
      if (part === '÷') expected.push(text.length);
      else if (part !== '×') text += fromHex(part);
    }
    const found = breaksOf(text).map(({ at }) => at);
    return JSON.stringify(found) !== JSON.stringify(expected.filter((at) => at > 0));
  });
  expect(cases.length).toBeGreaterThan(7000);
  // Unicode 15.1 changed what follows quotation marks and spaces (UAX #14, LB15a and LB15b), and the library goes by that.
  expect(wrong).toHaveLength(8);
  expect(wrong.filter((line) => !/\(QU\).* SPACE/.test(line))).toEqual([]);
});

// Parted by spaces between letters of ASCII, a text has the breaks of the same text of other letters and digits (AL, NU).
test('lines end in words that are looked at one by one where they end in the whole text', () => {
  const letter = fc.constantFrom(
    ...'ab1 2  .,-!?"“”(»«)[]/%$€…—\u00a0\u200d\u2060\u0301あ字ㄱא👍🏽🇸🇪\u2028\t',
  );
  const others: Record<string, string> = { a: 'α', b: 'β', 1: '\u0661', 2: '\u0662' };
  fc.assert(
    fc.property(fc.array(letter, { maxLength: 40 }), (letters) => {
      const whole = letters.map((one) => others[one] ?? one).join('');
      expect(breaksOf(letters.join(''))).toEqual(breaksOf(whole));
    }),
    { numRuns: 2000 },
  );
});

// UAX #14, LB15a: nothing ends a line between an opening quotation mark and what it quotes; LB18: spaces after that do.
test('a line may end after the first word that is quoted', () => {
  expect(breaksOf('«alpha beta').map(({ at }) => at)).toEqual([7, 11]);
  expect(breaksOf('« alpha beta').map(({ at }) => at)).toEqual([8, 12]);
});

test('parts run in the directions of Unicode’s BidiCharacterTest.txt, and stand in its order', () => {
  // Unicode 15.0, BidiCharacterTest.txt: code points; direction; level of the paragraph; levels; order from the left.
  const wrong: string[] = [];
  let compared = 0;
  for (const line of file('BidiCharacterTest.txt')) {
    const [codes, direction, base, levels, order] = line.split(';');
    const text = fromHex(codes);
    // Its characters are UTF-16 units here; what ends paragraphs, and tabs, never come so far.
    if ([...text].length < text.length || /[\p{Cc}\u2029]/u.test(text)) continue;
    const wanted = direction === '0' ? 'ltr' : direction === '1' ? 'rtl' : undefined;
    const found = directionsOf(text, wanted);
    const expected = levels.trim().split(' ');
    // X9 takes away what embeds; x stands for it. What L1 does with spaces at the end is the line's.
    const kept = [...expected.keys()].filter((i) => expected[i] !== 'x');
    const end = text.search(/[\s\u2066-\u2069\u202a-\u202e\u200b\ufeff\u00ad]*$/u);
    const own = kept.map((i) => (i < end ? (found.levels?.[i] ?? 0) : Number(expected[i])));
    const isRight =
      found.base === Number(base) &&
      kept.every((i, k) => own[k] === Number(expected[i])) &&
      visualOrder(own)
        .map((k) => kept[k])
        .join(' ') === order.trim();
    if (!isRight) wrong.push(line);
    compared++;
  }
  expect(wrong).toEqual([]);
  expect(compared).toBeGreaterThan(80_000);
});
