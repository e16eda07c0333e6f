import fc from 'fast-check';
import { unzlibSync, zlibSync } from 'fflate';
import { bytesOf, latin1 } from './bytes';
import { decodeStream } from './filters';
import { KeptPacks, type Numbered } from './kept-packs';
import { opened, smallPdf } from '../testing/small-file';
import { deflateHere, streamData, writtenStream } from './store';
import { PdfDict, PdfRef, PdfStream, name, nameText } from './values';

const decoded = (entries: Parameters<typeof PdfDict.of>[0], bytes: Uint8Array): number[] => [
  ...decodeStream(new PdfStream(PdfDict.of(entries), () => bytes), (value) => value),
];

/** Rows as PNG filters them: RFC 2083, section 6, in its own words and in its own direction. */
function filtered(
  rows: readonly (readonly number[])[],
  types: readonly number[],
  pixel: number,
): number[] {
  const raw = (r: number, i: number): number => (r < 0 || i < 0 ? 0 : rows[r][i]);
  const paeth = (a: number, b: number, c: number): number => {
    const p = a + b - c;
    const [pa, pb, pc] = [Math.abs(p - a), Math.abs(p - b), Math.abs(p - c)];
    if (pa <= pb && pa <= pc) return a;
    return pb <= pc ? b : c;
  };
  return rows.flatMap((row, r) => [
    types[r],
    ...row.map((x, i) => {
      const [a, b, c] = [raw(r, i - pixel), raw(r - 1, i), raw(r - 1, i - pixel)];
      const predicted = [0, a, b, Math.floor((a + b) / 2), paeth(a, b, c)][types[r]];
      return (x - predicted) & 255;
    }),
  ]);
}

test('what PNG predictors were put on comes off again, for every filter and size of pixel', () => {
  const byte = fc.integer({ min: 0, max: 255 });
  const sizes = fc.record({
    colors: fc.integer({ min: 1, max: 4 }),
    columns: fc.integer({ min: 1, max: 6 }),
    count: fc.integer({ min: 1, max: 5 }),
  });
  fc.assert(
    fc.property(
      sizes.chain(({ colors, columns, count }) =>
        fc.record({
          colors: fc.constant(colors),
          columns: fc.constant(columns),
          rows: fc.array(
            fc.array(byte, { minLength: colors * columns, maxLength: colors * columns }),
            { minLength: count, maxLength: count },
          ),
          types: fc.array(fc.integer({ min: 0, max: 4 }), { minLength: count, maxLength: count }),
        }),
      ),
      ({ colors, columns, rows, types }) => {
        const bytes = zlibSync(Uint8Array.from(filtered(rows, types, colors)));
        const parms = PdfDict.of({ Predictor: 15, Colors: colors, Columns: columns });
        expect(decoded({ Filter: name('FlateDecode'), DecodeParms: parms }, bytes)).toEqual(
          rows.flat(),
        );
      },
    ),
  );
});

// ISO 32000-1, 7.4.1: several filters are an array, with their parameters in one as well; table 94: “Fl” for short.
test('filters are taken off one after the other, up to eight', () => {
  const text = bytesOf('the tide in the marsh');
  const times = (count: number): Uint8Array =>
    Array.from({ length: count }).reduce<Uint8Array>((bytes) => zlibSync(bytes), text);
  const filters = (count: number) => Array.from({ length: count }, () => name('FlateDecode'));
  expect(decoded({ Filter: [] }, text)).toEqual([...text]);
  expect(decoded({ Filter: name('Fl') }, times(1))).toEqual([...text]);
  expect(decoded({ Filter: filters(8) }, times(8))).toEqual([...text]);
  expect(() => decoded({ Filter: filters(9) }, times(9))).toThrow('9 filters');
  expect(() => decoded({ Filter: name('LZWDecode') }, text)).toThrow('LZWDecode');
  expect(() => decoded({ Filter: 5 }, text)).toThrow('filter ?');
  expect(() => decoded({ Filter: name('FlateDecode') }, text)).toThrow('broken');
});

// RFC 1950, 2.2: four bytes of checksum come last; programs have been known to forget them.
test('a compressed stream without its checksum, or without its header, is read', () => {
  const text = bytesOf('sand '.repeat(40));
  const whole = zlibSync(text);
  for (const bytes of [whole.subarray(0, whole.length - 4), whole.subarray(2, whole.length - 4)])
    expect(decoded({ Filter: name('FlateDecode') }, bytes)).toEqual([...text]);
});

test('short streams are stored as they are, longer ones compressed', () => {
  const bytes = (length: number): Uint8Array => new Uint8Array(length).fill(65);
  expect(streamData(bytes(127), deflateHere)).toEqual({ data: bytes(127), filter: undefined });
  const { data, filter } = streamData(bytes(128), deflateHere);
  expect(nameText(filter!)).toBe('FlateDecode');
  expect(unzlibSync(data)).toEqual(bytes(128));
  // 7.3.8.2: Length is the number of bytes between the words, as they are stored.
  const written = latin1(writtenStream(PdfDict.of({ Kept: 1 }), bytes(128), deflateHere));
  const [, dict, inside] = /^(<<.*>>)\nstream\n([^]*)\nendstream$/.exec(written)!;
  expect(dict).toContain(`/Length ${inside.length}`);
  expect(dict).toContain('/Kept 1');
  expect(inside.length).toBe(data.length);
});

// ISO 32000-1, 7.3.8.1: after “stream” an end of line, CR and LF or LF alone; not what begins the data.
test.each(['\n', '\r\n'])('a stream begins after %j', (end) => {
  const file = opened(
    smallPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      `<< /Length 4 >>\nstream${end}\n\r%AB\nendstream`,
      '7 stream',
    ]),
  );
  const stream = file.resolve(new PdfRef(2, 0)) as PdfStream;
  expect([...stream.raw()]).toEqual([10, 13, 37, 65]);
  expect(file.resolve(new PdfRef(3, 0))).toBe(7);
});

test('objects go together by their numbers, and what has not changed is not packed again', () => {
  const packs = new KeptPacks();
  const object = (number: number): Numbered => [number, number * 3];
  const inOne = (all: readonly Numbered[], size: number): number[][] =>
    packs.pack(all, size, deflateHere).map((pack) => pack.objects.map(([number]) => number));
  // Those that the file had, and those that are new, by their ranges.
  const some = [5, 2047, 2048, 4999, 5000, 5399, 5400].map(object);
  expect(inOne(some, 5000)).toEqual([[5, 2047], [2048], [4999], [5000, 5399], [5400]]);
  const many = Array.from({ length: 401 }, (_, i) => object(i + 1));
  expect(inOne(many, 5000).map((group) => group.length)).toEqual([400, 1]);
  const before = packs.pack(some, 5000, deflateHere);
  const after = packs.pack([[5, 1], ...some.slice(1)], 5000, deflateHere);
  expect(before.map((pack, i) => pack === after[i])).toEqual([false, true, true, true, true]);
});
