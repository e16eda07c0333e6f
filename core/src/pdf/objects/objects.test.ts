import fc from 'fast-check';
import { zlibSync } from 'fflate';
import { bytesInMemory, bytesOf, joinBytes, latin1 } from './bytes';
import { instantOf, pdfDate } from './date';
import { PdfFile } from './file';
import { decodeStream } from './filters';
import { EndOfWindow, Parser, PdfSyntaxError } from './parser';
import { serialize } from './serialize';
import { textOf, textString } from './text-string';
import { PdfUpdate } from './update';
import { PdfDict, PdfName, PdfRef, PdfStream, PdfString, name, type PdfValue } from './values';

const parse = (text: string): PdfValue => new Parser(bytesOf(text)).value();
const stringOf = (text: string): string => latin1((parse(text) as PdfString).bytes);

// ISO 32000-1, 7.3.3: examples of integers and reals.
test.each([
  ['123', 123],
  ['43445', 43445],
  ['+17', 17],
  ['-98', -98],
  ['0', 0],
  ['34.5', 34.5],
  ['-3.62', -3.62],
  ['+123.6', 123.6],
  ['4.', 4],
  ['-.002', -0.002],
  ['0.0', 0],
])('number %s', (text, value) => {
  expect(parse(`${text} `)).toBeCloseTo(value, 6);
});

// ISO 32000-1, 7.3.4.2: examples of literal strings.
test.each([
  ['(This is a string)', 'This is a string'],
  ['(Strings may contain newlines\nand such.)', 'Strings may contain newlines\nand such.'],
  [
    '(Strings may contain balanced parentheses ( ) and\nspecial characters (*!&}^% and so on).)',
    'Strings may contain balanced parentheses ( ) and\nspecial characters (*!&}^% and so on).',
  ],
  ['()', ''],
  ['(These \\\ntwo strings \\\nare the same.)', 'These two strings are the same.'],
  [
    '(This string contains \\245two octal characters\\307.)',
    'This string contains \xa5two octal characters\xc7.',
  ],
  ['(\\0053)', '\x053'],
  ['(\\053)', '+'],
  ['(\\53)', '+'],
])('literal string %s', (text, value) => expect(stringOf(text)).toBe(value));

// ISO 32000-1, 7.3.4.3: <901FA> is the bytes 90 1F A0.
test('hexadecimal strings, an odd digit filled up with 0', () => {
  expect([...(parse('<901FA3>') as PdfString).bytes]).toEqual([0x90, 0x1f, 0xa3]);
  expect([...(parse('<901FA>') as PdfString).bytes]).toEqual([0x90, 0x1f, 0xa0]);
});

// ISO 32000-1, 7.3.5, table 4: examples of names.
test.each([
  ['/Name1', 'Name1'],
  ['/A;Name_With-Various***Characters?', 'A;Name_With-Various***Characters?'],
  ['/1.2', '1.2'],
  ['/.notdef', '.notdef'],
  ['/Lime#20Green', 'Lime Green'],
  ['/paired#28#29parentheses', 'paired()parentheses'],
  ['/The_Key_of_F#23_Minor', 'The_Key_of_F#_Minor'],
  ['/A#42', 'AB'],
])('name %s', (text, value) => {
  expect((parse(`${text} `) as PdfName).text).toBe(value);
});

// ISO 32000-1, 7.3.6 and 7.3.7: the examples of an array and of a dictionary.
test('arrays and dictionaries', () => {
  expect(parse('[549 3.14 false (Ralph) /SomeName]')).toEqual([
    549,
    3.14,
    false,
    new PdfString(bytesOf('Ralph')),
    name('SomeName'),
  ]);
  const dict = parse(
    '<< /Type /Example /Version 0.01 /IntegerItem 12 /StringItem (a string) /Subdictionary << /Item1 0.4 /LastItem (not !) >> >>',
  ) as PdfDict;
  expect(dict.get('Version')).toBe(0.01);
  expect((dict.get('Subdictionary') as PdfDict).get('Item1')).toBe(0.4);
  expect(parse('[12 0 R 12 0 7 0 R]')).toEqual([new PdfRef(12, 0), 12, 0, new PdfRef(7, 0)]);
});

const anyValue: fc.Arbitrary<PdfValue> = fc.letrec<{ value: PdfValue }>((tie) => ({
  value: fc.oneof(
    { maxDepth: 3 },
    fc.integer(),
    fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((x) => Math.round(x * 1e4) / 1e4 + 0),
    fc.boolean(),
    fc
      .string({ maxLength: 8, unit: 'binary-ascii' })
      .filter((s) => s !== '')
      .map((s) => new PdfName(s)),
    fc.uint8Array({ maxLength: 12 }).map((b) => new PdfString(b)),
    fc.tuple(fc.nat(9999), fc.nat(9)).map(([n, g]) => new PdfRef(n, g)),
    fc.array(tie('value'), { maxLength: 4 }),
    fc
      .dictionary(fc.stringMatching(/^[A-Za-z]{1,6}$/), tie('value'), { maxKeys: 4 })
      .map((o) => PdfDict.of(o)),
  ),
})).value;

test('what is written reads back as it was', () => {
  fc.assert(
    fc.property(anyValue, (value) => {
      const zero = (v: unknown): unknown =>
        JSON.parse(
          JSON.stringify(v, (_, x: unknown) =>
            x instanceof Uint8Array ? [...x] : x instanceof Map ? [...x] : x,
          ),
        );
      expect(zero(parse(`${serialize(value)} `))).toEqual(zero(value));
    }),
  );
});

test('an incomplete window asks for more instead of guessing', () => {
  const text = '<< /A [1 2 (three) 4 0 R] /B <0102> >> ';
  for (let cut = 1; cut < text.length - 1; cut++)
    expect(() => new Parser(bytesOf(text.slice(0, cut)), 0, false).value()).toThrow(EndOfWindow);
});

test('random bytes are parsed or refused, and always come to an end', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
      try {
        new Parser(bytes).value();
      } catch (error) {
        expect(error).toBeInstanceOf(PdfSyntaxError);
      }
    }),
  );
});

// RFC 2083, section 6.6 (Paeth), 6.3 (Sub), 6.4 (Up), 6.5 (Average): rows written by hand.
test('PNG predictors are taken off row by row', () => {
  const rows = Uint8Array.from([1, 10, 5, 5, 2, 1, 1, 1, 3, 4, 4, 4, 4, 1, 0, 2]);
  const dict = PdfDict.of({
    Filter: name('FlateDecode'),
    DecodeParms: PdfDict.of({ Predictor: 15, Columns: 3 }),
  });
  const packed = zlibSync(rows);
  // Row 1: 10 15 20; row 2 = up: 11 16 21; row 3 = average: 9 16 22; row 4 = Paeth: 10 16 24.
  expect([...decodeStream(new PdfStream(dict, () => packed), (v) => v)]).toEqual([
    10, 15, 20, 11, 16, 21, 9, 16, 22, 10, 16, 24,
  ]);
});

// ISO 32000-1, 7.9.4: the example D:199812231952-08'00'.
test('dates', () => {
  expect(instantOf(textString("D:199812231952-08'00'"))).toBe('1998-12-24T03:52:00.000Z');
  expect(instantOf(textString('D:2026'))).toBe('2026-01-01T00:00:00.000Z');
  expect(instantOf(textString('yesterday'))).toBeUndefined();
  expect(textOf(pdfDate('2026-09-01T08:30:15.500Z'))).toBe('D:20260901083015Z');
});

// ISO 32000-1, annex D.2: in PDFDocEncoding 200 (octal) is bullet, 240 (octal) is the Euro sign.
test('text strings in every encoding', () => {
  expect(textOf(new PdfString(Uint8Array.from([0x80, 0xa0, 0xe9])))).toBe('•€é');
  expect(textOf(new PdfString(Uint8Array.from([0xef, 0xbb, 0xbf, 0xc3, 0xa9])))).toBe('é');
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', maxLength: 20 }).filter((s) => !s.includes('\u001b')),
      (text) => expect(textOf(textString(text))).toBe(text),
    ),
  );
});

/** A file with an old-fashioned cross-reference table, made by hand. */
function smallFile(): Uint8Array {
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 100 200] >>',
  ];
  let text = '%PDF-1.4\n';
  const offsets = objects.map((body, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${body}\nendobj\n`;
    return at;
  });
  const start = text.length;
  text += `xref\n0 4\n0000000000 65535 f\r\n${offsets.map((o) => `${String(o).padStart(10, '0')} 00000 n\r\n`).join('')}trailer\n<< /Size 4 /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return bytesOf(text);
}

test('an update is appended, and the newer object counts', () => {
  const bytes = smallFile();
  const file = new PdfFile(bytesInMemory(bytes));
  const update = new PdfUpdate(file);
  const added = update.add(textString('new'));
  update.set(
    new PdfRef(3, 0),
    (file.resolve(new PdfRef(3, 0)) as PdfDict).with({ Rotate: 90, Extra: added }),
  );
  const after = new PdfFile(bytesInMemory(joinBytes([bytes, update.bytes()])));
  const page = after.resolve(new PdfRef(3, 0)) as PdfDict;
  expect(page.get('Rotate')).toBe(90);
  expect(textOf(after.resolve(page.get('Extra')))).toBe('new');
  expect(after.trailer.get('Prev')).toBe(file.xref.start);
});

test('nothing changed is nothing appended', () => {
  expect(new PdfUpdate(new PdfFile(bytesInMemory(smallFile()))).bytes().length).toBe(0);
});

test('a cut file is refused, not misread', () => {
  const bytes = smallFile();
  expect(() => new PdfFile(bytesInMemory(bytes.subarray(0, bytes.length - 60)))).toThrow(
    PdfSyntaxError,
  );
});
