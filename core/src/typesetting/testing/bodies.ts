import fc from 'fast-check';
import { FORMULA, bodySchema, usualLook, type Body, type Run } from '../../typed/index';

const words = fc.constantFrom(
  'tide',
  'gauge',
  'landing',
  'stage',
  'a',
  'office',
  'extraordinarily',
  'café',
  'πλημμυρίδα',
  'прилив',
  '潮汐表',
  'ש',
  'גאות',
  'المد',
  '(12.5)',
  '—',
  '🌊',
  'e\u0301',
);
const separators = fc.constantFrom(' ', ' ', ' ', '  ', '-', '\t', '\n');
const looks = fc.constantFrom(
  undefined,
  { bold: true },
  { size: 20 },
  { font: 'caveat' as const },
  { script: 'super' as const },
);
const paragraph = fc.record(
  {
    runs: fc.array(
      fc.oneof(
        {
          weight: 6,
          arbitrary: fc
            .tuple(fc.array(fc.tuple(words, separators), { minLength: 1, maxLength: 12 }), looks)
            .map(([parts, look]): Run => ({ text: parts.flat().join(''), look })),
        },
        {
          weight: 1,
          arbitrary: fc
            .constantFrom('x', '\\frac{a}{b}', 'h=\\frac12gt^2')
            .map((formula): Run => ({ text: FORMULA, look: { formula } })),
        },
      ),
      { maxLength: 4 },
    ),
    align: fc.constantFrom(undefined, 'center' as const, 'end' as const, 'justify' as const),
    list: fc.constantFrom(
      undefined,
      undefined,
      'bullet' as const,
      'number' as const,
      'check' as const,
    ),
    indent: fc.constantFrom(undefined, 1, 2),
    lines: fc.constantFrom(undefined, 1.5),
  },
  { requiredKeys: ['runs'] },
);
/** Texts of several scripts, looks and kinds of paragraphs. */
export const someBody = fc
  .array(paragraph, { minLength: 1, maxLength: 5 })
  .map((paragraphs): Body => bodySchema.parse({ look: usualLook, paragraphs }));
