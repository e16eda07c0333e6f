import fc from 'fast-check';
import { PdfFile, bytesInMemory, bytesOf, serialize, type PdfValue } from './objects/index';
import { labelTree, readLabels, numeral } from './labels';

/** A file whose catalogue has the given page labels. */
function fileWith(labels: string): PdfFile {
  const body = `1 0 obj\n<< /Type /Catalog /Pages 2 0 R /PageLabels ${labels} >>\nendobj\n`;
  const start = 9 + body.length;
  return new PdfFile(
    bytesInMemory(
      bytesOf(
        `%PDF-1.4\n${body}xref\n0 2\n0000000000 65535 f\r\n0000000009 00000 n\r\ntrailer\n<< /Size 2 /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`,
      ),
    ),
  );
}

// ISO 32000-1, 12.4.2, the clause's own example: i, ii, iii, iv, 1, 2, 3, A-8, A-9, …
test('the example of the standard', () => {
  const file = fileWith('<< /Nums [ 0 << /S /r >> 4 << /S /D >> 7 << /S /D /P (A-) /St 8 >> ] >>');
  expect(readLabels(file, 9)).toEqual(['i', 'ii', 'iii', 'iv', '1', '2', '3', 'A-8', 'A-9']);
});

test('without labels pages have their numbers', () => {
  expect(readLabels(fileWith('<< >>'), 3)).toEqual(['1', '2', '3']);
});

// ISO 32000-1, table 159: letters go A to Z, then AA to ZZ, and so on.
test('letters and roman numbers', () => {
  expect([1, 26, 27, 52, 53].map((n) => numeral(n, 'A'))).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA']);
  expect([4, 9, 14, 40, 90, 400, 1994].map((n) => numeral(n, 'R'))).toEqual([
    'IV',
    'IX',
    'XIV',
    'XL',
    'XC',
    'CD',
    'MCMXCIV',
  ]);
});

test('a tree of several levels is read in order', () => {
  const file = fileWith(
    '<< /Kids [ << /Nums [ 0 << /S /r >> ] >> << /Nums [ 2 << /S /D /P (B ) >> ] >> ] >>',
  );
  expect(readLabels(file, 4)).toEqual(['i', 'ii', 'B 1', 'B 2']);
});

// ISO 32000-1, 12.4.2: what is written is read back, whatever the labels are.
test('any labels are written so that they are read back', () => {
  const style = fc.constantFrom('D', 'r', 'R', 'a', 'A');
  const run = fc
    .tuple(
      fc.constantFrom('', 'A-', 'Anhang ', 'T', '1.'),
      style,
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 9 }),
    )
    .map(([prefix, kind, first, length]) =>
      Array.from({ length }, (_, i) => prefix + numeral(first + i, kind)),
    );
  const odd = fc.array(fc.string({ maxLength: 6 }), { maxLength: 3 });
  fc.assert(
    fc.property(fc.array(fc.oneof(run, odd), { minLength: 1, maxLength: 6 }), (runs) => {
      const labels = runs.flat();
      const file = fileWith(serialize(labelTree(labels)));
      expect(readLabels(file, labels.length)).toEqual(labels);
    }),
  );
});

test('labels that count on are one range', () => {
  const labels = ['i', 'ii', 'iii', '1', '2', '3', 'A-1', 'A-2', 'Errata'];
  const nums = labelTree(labels).get('Nums') as PdfValue[];
  expect(nums.filter((_, i) => i % 2 === 0)).toEqual([0, 3, 6, 8]);
});
