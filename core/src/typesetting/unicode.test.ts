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
