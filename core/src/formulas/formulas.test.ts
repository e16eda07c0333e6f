import fc from 'fast-check';
import { pathCommands } from '../typesetting/index';
import { formulaOf, formulaOrSource } from './formulas';

const made = (source: string) => {
  const { formula } = formulaOf(source);
  if (!formula) throw new Error(source);
  return formula;
};
/** What outlines cover, shares of the size, y down. */
function inkOf(source: string) {
  const points = made(source).outlines.flatMap(({ path, within }) =>
    within
      ? [
          [within.x0, within.y0],
          [within.x1, within.y1],
        ]
      : pathCommands(path).flatMap(({ points: all }) =>
          all.flatMap((x, i) => (i % 2 === 0 ? [[x, all[i + 1]]] : [])),
        ),
  );
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
}

// Widths of cmmi10 and cmr10 at 10 points (Computer Modern, tfm): x is 5.71527, 2 is 5.00002, = is 7.77782 wide; TeXbook,
// chapter 18: a relation has 5/18 quad on both sides. From memory.
test('letters are as wide as those of Computer Modern, with the spaces of TeX', () => {
  expect(made('x').width).toBeCloseTo(0.571527, 2);
  expect(made('2').width).toBeCloseTo(0.500002, 2);
  expect(made('x=2').width).toBeCloseTo(0.571527 + 0.777782 + 0.500002 + 10 / 18, 2);
  expect(made('x').descent).toBeLessThan(0.02);
});

// TeXbook, appendix G, rule 15: the bar of a fraction is on the axis, sigma 22 of cmsy10, 0.25 quad above the line; from memory.
test('the bar of a fraction is on the axis; numbers are above and below it', () => {
  const { outlines } = made('\\frac{}{}');
  const ys = outlines.flatMap(({ path }) =>
    pathCommands(path).flatMap(({ points }) => points.filter((_, i) => i % 2 === 1)),
  );
  expect((Math.min(...ys) + Math.max(...ys)) / 2).toBeCloseTo(-0.25, 2);
  const { y0, y1 } = inkOf('\\frac{1}{2}');
  expect(y0).toBeLessThan(-0.7);
  expect(y1).toBeGreaterThan(0.2);
});

test.each([
  'x^2',
  '\\frac{a}{\\sqrt{b}}',
  '\\left(\\begin{matrix}a\\\\b\\\\c\\\\d\\\\e\\\\f\\end{matrix}\\right)',
  '\\overbrace{a+b+c+d+e}^{n}',
  '\\cancel{x}',
  '\\boxed{E}',
  '\\begin{array}{|c|c|}\\hline a & b \\\\ \\hline\\end{array}',
  '\\mathfrak{A}\\mathbb{R}\\mathcal{L}\\boldsymbol{\\alpha}',
  '\\ce{2H2 + O2 -> 2H2O}',
  '\\displaystyle\\sum_{i=1}^{n}\\int_a^b',
  '\\text{as it } x',
])('%s is drawn within the room that it says', (source) => {
  const { width, ascent, descent } = made(source);
  const ink = inkOf(source);
  // Italics lean a little over their width.
  expect(ink.x0).toBeGreaterThan(-0.15);
  expect(ink.x1).toBeLessThan(width + 0.15);
  expect(ink.y0).toBeGreaterThan(-ascent - 0.05);
  expect(ink.y1).toBeLessThan(descent + 0.05);
  expect((ink.x1 - ink.x0) / width).toBeGreaterThan(0.5);
});

test('what is no formula says why, and is shown as it is written', () => {
  const troubleOf = (source: string): string => {
    const one = formulaOf(source);
    return 'trouble' in one ? one.trouble : '';
  };
  expect(troubleOf('\\frac{')).toBe('Missing close brace.');
  expect(troubleOf('\\nonsense')).toContain('\\nonsense');
  expect(troubleOf('\\text{潮}')).toBe('The font of formulas has no “潮”.');
  expect(troubleOf('\\href{https://example.org}{x}')).toContain('\\href');
  expect(troubleOf('\\rule{9999em}{1em}')).toBe('It is larger than any page.');
  expect(troubleOf('\\def\\a{\\a\\a}\\a')).not.toBe('');
  const shown = formulaOrSource('\\frac{^~#%&_$潮');
  expect(shown.width).toBeGreaterThan(5);
  expect(shown.outlines.length).toBeGreaterThan(0);
});

test('whatever is written becomes a formula or a trouble', () => {
  const token = fc.constantFrom(
    ...[
      'x',
      '^',
      '_',
      '{',
      '}',
      '\\frac',
      '\\sqrt',
      '&',
      '\\\\',
      '$',
      '\\left(',
      '\\right)',
      ' ',
      '1',
      '\\text',
      '%',
    ],
    ...[
      '\\begin{matrix}',
      '\\end{matrix}',
      '\\kern-99em',
      '\\hspace{1e99em}',
      '潮',
      '\u0301',
      '\\ce{',
    ],
  );
  fc.assert(
    fc.property(fc.array(token, { maxLength: 30 }), (tokens) => {
      const { width, ascent, descent } = formulaOrSource(tokens.join(''));
      for (const one of [width, ascent, descent]) expect(Number.isFinite(one)).toBe(true);
    }),
    { numRuns: 300 },
  );
  expect(formulaOrSource('{'.repeat(1000) + '}'.repeat(1000)).width).toBeDefined();
});
