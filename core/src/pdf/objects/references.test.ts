import fc from 'fast-check';
import { builtPdf, type BuiltObject } from '../testing/built-file';
import { opened } from '../testing/small-file';
import { bytesOf } from './bytes';
import { PdfSyntaxError } from './parser';
import { numbersReferredTo } from './references';
import { PdfUpdate } from './update';
import { PdfDict, PdfRef, PdfStream, name, type PdfValue } from './values';

const PAGES: [number, BuiltObject][] = [
  [1, '<< /Type /Catalog /Pages 2 0 R >>'],
  [2, '<< /Type /Pages /Kids [3 0 R] /Count 1 >>'],
];
const page = (refs: readonly number[]): string =>
  `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 9 9] /Missing [${refs.map((r) => `${r} 0 R`).join(' ')}] >>`;

// ISO 32000-1, 7.3.10: “an indirect reference to an undefined object shall not be considered an error […] it shall be
// treated as a reference to the null object.” What means null has to go on meaning null.
test('a number that anything in a file refers to is given to no new object, in every form of file', () => {
  const dangling = fc.uniqueArray(fc.integer({ min: 4, max: 40 }), { maxLength: 8 });
  fc.assert(
    fc.property(
      fc.constantFrom('table' as const, 'stream' as const),
      fc.boolean(),
      dangling,
      dangling,
      fc.integer({ min: 1, max: 30 }),
      (form, isPacked, refs, olderRefs, count) => {
        const packed = new Set(form === 'stream' && isPacked ? [3] : []);
        const building = { form, packed, trailer: '/Root 1 0 R' };
        // The older revision of the page refers to others.
        const first = builtPdf(new Map([...PAGES, [3, page(olderRefs)]]), building);
        const bytes = builtPdf(new Map([[3, page(refs)]]), building, first);
        const file = opened(bytes);
        const update = new PdfUpdate(file);
        for (let i = 0; i < count; i++) update.add(PdfDict.of({ Type: name('New') }));
        const after = opened(bytes, update.bytes());
        const there = new Set(file.xref.entries.keys());
        for (const number of [...refs, ...olderRefs])
          if (!there.has(number)) expect(after.resolve(new PdfRef(number, 0))).toBeNull();
        const added = [...after.xref.entries.keys()].filter((number) => !there.has(number));
        const news = added.filter(
          (number) => after.dict(new PdfRef(number, 0))?.get('Type') !== null,
        );
        expect(news.length).toBeGreaterThanOrEqual(count);
      },
    ),
  );
});

test('references are found across the windows in which a file is looked through', () => {
  const padding = ' '.repeat(1024 * 1024 - 200);
  const far = `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 9 9] /Far [${padding}${Array.from({ length: 60 }, (_, i) => `${100 + i} 0 R`).join(' ')}] >>`;
  const bytes = builtPdf(new Map([...PAGES, [3, far]]), { form: 'table', trailer: '/Root 1 0 R' });
  const found = opened(bytes).referredTo;
  for (let i = 0; i < 60; i++) expect(found.has(100 + i)).toBe(true);
});

const NO_XREF = { containers: new Set<number>(), superseded: [] };

/** The numbers from 5 on that a text looks to refer to. */
const referredIn = (text: string): number[] => {
  const bytes = bytesOf(text);
  const source = { length: bytes.length, slice: (a: number, b: number) => bytes.slice(a, b) };
  const [resolve, objectAt, decode] = [() => null, () => ({ value: null }), () => bytes];
  const file = { source, size: 5, xref: NO_XREF, resolve, objectAt, decode };
  return [...numbersReferredTo(file)].sort((a, b) => a - b);
};

// ISO 32000-1, 7.3.10: two integers and the letter R, parted by white space; a positive number of up to ten digits.
test.each([
  ['12 0 R', [12]],
  ['[5 0 R/Key 6\r\n 15\tR]', [5, 6]],
  ['4 0 R', []],
  ['12 0R', []],
  ['120 R', []],
  [' 0 R', []],
  ['R', []],
  [' R', []],
  ['x 12 0 Rest', [12]],
  ['1234567890 0 R', [1234567890]],
  ['12345678901 0 R', []],
  ['7 0 R 8 0 R 9 0 X', [7, 8]],
])('in %j there are %j', (text, numbers) => {
  expect(referredIn(text)).toEqual(numbers);
});

test('a reference is found over the end of what is looked at together', () => {
  const window = 1024 * 1024;
  for (const at of [window - 128, window - 4, window - 1, window])
    expect(referredIn(`${' '.repeat(at - 3)}12 0 R${' '.repeat(500)}`)).toEqual([12]);
});

test('object streams are looked into, other streams and what cannot be read are not', () => {
  const stream = (type: string): PdfStream =>
    new PdfStream(PdfDict.of({ Type: name(type) }), () => bytesOf('77 0 R'));
  const referred = (value: PdfValue, decode = (one: PdfStream) => one.raw()): number[] => {
    const source = { length: 0, slice: () => new Uint8Array() };
    const xref = { containers: new Set([3]), superseded: [] };
    const file = { source, size: 5, xref, resolve: () => value, decode };
    return [...numbersReferredTo({ ...file, objectAt: () => ({ value: null }) })];
  };
  expect(referred(stream('ObjStm'))).toEqual([77]);
  expect(referred(stream('XObject'))).toEqual([]);
  expect(referred(PdfDict.of({ Type: name('ObjStm') }))).toEqual([]);
  const fails = (error: Error) => (): Uint8Array => {
    throw error;
  };
  expect(referred(stream('ObjStm'), fails(new PdfSyntaxError('broken')))).toEqual([]);
  expect(() => referred(stream('ObjStm'), fails(new TypeError('ours')))).toThrow('ours');
});
