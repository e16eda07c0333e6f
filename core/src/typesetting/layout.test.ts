import fc from 'fast-check';
import { formulaOrSource } from '../formulas/index';
import { FORMULA, bodyOf, plainText, textOfParagraph, usualLook, type Body } from '../typed/index';
import { breaksOf } from './breaks';
import { Typesetter } from './layout';
import { someBody } from './testing/bodies';
import { engineWith, laidOut } from './testing/typesetter';
import type { Line } from './text-layout';

const spaceless = (text: string): string => text.replace(/[\s\u2028]+$/, '');
const endOf = ({ runs }: Line): number => Math.max(0, ...runs.map(({ x, width }) => x + width));

test('every letter stands on one line, in order; lines end where they may, and as late as they can', async () => {
  await fc.assert(
    fc.asyncProperty(someBody, fc.integer({ min: 40, max: 400 }), async (written, width) => {
      const { lines, height } = await laidOut(written, width);
      written.paragraphs.forEach((one, i) => {
        const text = textOfParagraph(one).replaceAll('\n', '\u2028');
        const own = lines.filter((line) => line.paragraph === i);
        expect(own.map(({ from, to }) => text.slice(from, to)).join('')).toBe(text);
        const allowed = new Set(breaksOf(text).map(({ at }) => at));
        for (const line of own) {
          const covered = line.runs
            .flatMap(({ from, to }) => [[from, to]])
            .sort(([a], [b]) => a - b);
          expect(covered.reduce((at, [from, to]) => (from === at ? to : NaN), line.from)).toBe(
            line.to,
          );
          // A line ends within a word only where the word is longer than any line.
          if (line.to < text.length && !allowed.has(line.to))
            expect(breaksOf(text).some(({ at }) => at > line.from && at <= line.to)).toBe(false);
        }
      });
      expect(lines.every((line, i) => i === 0 || line.top >= lines[i - 1].top)).toBe(true);
      expect(height).toBeCloseTo(lines.at(-1)!.top + lines.at(-1)!.height);
    }),
    { numRuns: 60 },
  );
}, 120_000);

test('no line is wider than there is room, but for a letter that is by itself', async () => {
  await fc.assert(
    fc.asyncProperty(someBody, fc.integer({ min: 60, max: 400 }), async (written, width) => {
      const { lines } = await laidOut(written, width);
      for (const line of lines) {
        const text = textOfParagraph(written.paragraphs[line.paragraph]).replaceAll('\n', '\u2028');
        const letters = [
          ...new Intl.Segmenter().segment(spaceless(text.slice(line.from, line.to))),
        ];
        if (letters.length <= 1) continue;
        expect(line.x).toBeGreaterThan(-1e-6);
        expect(line.x + line.width).toBeLessThan(width + 0.01);
      }
    }),
    { numRuns: 60 },
  );
}, 120_000);

test('what is as wide as its text has no line that need not end, and is no wider', async () => {
  await fc.assert(
    fc.asyncProperty(someBody, async (written) => {
      const natural = await laidOut(written);
      const breaks = plainText(written).split('\n').length;
      expect(natural.lines).toHaveLength(breaks);
      const fitted = await laidOut(written, natural.width);
      expect(fitted.lines.map(({ from, to }) => [from, to])).toEqual(
        natural.lines.map(({ from, to }) => [from, to]),
      );
    }),
    { numRuns: 40 },
  );
}, 120_000);

test('paragraphs that stay are not laid out again, and a new one changes no other', async () => {
  const written = bodyOf('One tide.\nAnother tide, which was higher.\nThe last.', usualLook);
  const engine = await engineWith('source-serif-4');
  const setter = new Typesetter(engine);
  setter.layout(written, 80);
  const shape = jest.spyOn(engine, 'shape');
  const paragraphs = written.paragraphs.with(1, { runs: [{ text: 'Another tide, lower.' }] });
  const after = setter.layout({ ...written, paragraphs }, 80);
  expect(shape).toHaveBeenCalledTimes(1);
  expect(after).toEqual(new Typesetter(engine).layout({ ...written, paragraphs }, 80));
  shape.mockRestore();
});

test('lines are aligned, justified, indented and numbered as their paragraphs say', async () => {
  const text = 'The tide gauge stands beside the landing stage.';
  const of = async (look: object, room = 100) =>
    (await laidOut({ look: usualLook, paragraphs: [{ runs: [{ text }], ...look }] }, room)).lines;
  const [start, center, end, justify] = await Promise.all(
    [{}, { align: 'center' }, { align: 'end' }, { align: 'justify' }].map((look) => of(look)),
  );
  expect(start[0].x).toBe(0);
  expect(end[0].x + end[0].width).toBeCloseTo(100);
  expect(center[0].x).toBeCloseTo(end[0].x / 2);
  // Justified to the edge, without the space at the end; the last line is not (CSS Text 3, 6.1).
  const visible = (line: Line): number =>
    Math.max(
      ...line.runs
        .filter(({ from, to }) => text.slice(from, to).trim() !== '')
        .map(({ x, width }) => x + width),
    );
  expect(visible(justify[0])).toBeCloseTo(100);
  expect(endOf(justify.at(-1)!)).toBeLessThan(99);
  const listed = await laidOut({
    look: usualLook,
    paragraphs: [
      { runs: [{ text: 'ebb' }], list: 'number' },
      { runs: [{ text: 'of two kinds' }], list: 'number', indent: 1 },
      { runs: [{ text: 'flood' }], list: 'number' },
      { runs: [{ text: 'neither' }] },
      { runs: [{ text: 'again' }], list: 'number' },
      { runs: [{ text: 'done' }], list: 'check', isDone: true },
    ],
  });
  expect(listed.lines.map(({ marker }) => marker?.text)).toEqual([
    '1.',
    '1.',
    '2.',
    undefined,
    '1.',
    '☑',
  ]);
  expect(listed.lines[1].x).toBeCloseTo(2 * listed.lines[0].x);
  for (const { marker, x } of listed.lines)
    for (const run of marker?.runs ?? []) expect(run.x + run.width).toBeLessThan(x);
});

test('what runs from the right does so, with numbers in it from the left', async () => {
  const text = 'גאות 12 שפל';
  const [line] = (await laidOut(bodyOf(text, usualLook), 200)).lines;
  // UAX #9: the first word is the rightmost; digits keep their order.
  const places = line.runs.map(({ from }) => from);
  expect(places[0]).toBeGreaterThan(places.at(-1)!);
  expect(line.x + line.width).toBeCloseTo(200);
  const digits = line.runs.find(({ from, to }) => text.slice(from, to).includes('12'))!;
  expect(digits.isRightToLeft).toBe(false);
});

test('tabs lead to the next stop, those that are set and, behind them, at even distances', async () => {
  const { lines } = await laidOut({
    look: { ...usualLook, size: 10 },
    paragraphs: [{ runs: [{ text: 'a\tb\tc\td' }], tabs: [50] }],
  });
  const letters = lines[0].runs.filter(
    ({ width, shaped }) => shaped.glyphs.length > 0 && width > 0,
  );
  expect(letters.map(({ x }) => Math.round(x))).toEqual([0, 50, 60, 90]);
});

test('no letter is shown as an empty box', async () => {
  const sample = 'Tide παλίρροια прилив גאות المد 潮汐 조수 ज्वार ᚠᚢ ∫√ ☂ 🌊 ⅔ Ærø';
  const { lines } = await laidOut(bodyOf(sample, { ...usualLook, font: 'caveat' }));
  const missing = lines.flatMap(({ runs }) =>
    runs.filter(({ shaped }) => shaped.glyphs.includes(0)),
  );
  expect(missing.map(({ from, to }) => sample.slice(from, to))).toEqual([]);
});

test('a formula has its own room on its line, which is as high as it needs', async () => {
  const high = '\\displaystyle\\frac{\\frac{a}{b}}{\\frac{c}{d}}';
  const written = (formula: string): Body => ({
    look: usualLook,
    paragraphs: [
      { runs: [{ text: 'so ' }, { text: FORMULA, look: { formula } }, { text: ', and' }] },
    ],
  });
  const [low, tall] = [await laidOut(written('x')), await laidOut(written(high))];
  const { width, ascent, descent } = formulaOrSource(high);
  const [before, one, after] = tall.lines[0].runs;
  expect(one).toMatchObject({ text: FORMULA, x: before.x + before.width, width: width * 12 });
  expect(after.x).toBeCloseTo(one.x + width * 12);
  expect(one.y).toBe(tall.lines[0].baseline);
  expect(tall.lines[0].baseline).toBeGreaterThanOrEqual(ascent * 12);
  expect(tall.lines[0].height).toBeGreaterThan((ascent + descent) * 12 - 1e-6);
  // What is no higher than letters leaves the line as it is.
  expect(low.height).toBeCloseTo((await laidOut(bodyOf('so', usualLook))).height);
});
