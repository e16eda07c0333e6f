import { builtPdf } from '../testing/built-file';
import { opened } from '../testing/small-file';
import { bytesOf, latin1 } from './bytes';
import { PdfUpdate } from './update';
import { PdfDict, PdfRef, name } from './values';
import { WrittenObject } from './store';

const BOOK = new Map([
  [1, '<< /Type /Catalog /Pages 2 0 R >>'],
  [2, '<< /Type /Pages /Kids [] /Count 0 >>'],
]);
const TRAILER = '/Root 1 0 R /Info 2 0 R /ID [<01> <02>] /Custom 5';
const file = (form: 'table' | 'stream') => opened(builtPdf(BOOK, { form, trailer: TRAILER }));

// ISO 32000-1, 7.5.6: an update has a section of its own that leads to the one before; 7.5.5, table 15: its trailer.
test.each(['table', 'stream'] as const)(
  'an update of a file with a %s says what that said',
  (form) => {
    const before = file(form);
    const update = new PdfUpdate(before);
    const added = update.add(PdfDict.of({ Type: name('New') }));
    const bytes = update.bytes();
    const source = before.source.slice(0, before.source.length);
    const after = opened(source, bytes);
    expect(after.xref.form).toBe(form);
    const { trailer } = after;
    expect(trailer.get('Prev')).toBe(before.xref.start);
    expect([trailer.get('Root'), trailer.get('Info')]).toEqual([
      new PdfRef(1, 0),
      new PdfRef(2, 0),
    ]);
    expect(trailer.get('ID')).toEqual(before.trailer.get('ID'));
    expect([...trailer.entries.keys()]).not.toContain('Custom');
    expect(Number(trailer.get('Size'))).toBeGreaterThan(added.object);
  },
);

/** How the objects of an update of so many stand in the file, by their numbers. */
function kindsOf(form: 'table' | 'stream', count: number, more: WrittenObject[] = []): string[] {
  const before = file(form);
  const update = new PdfUpdate(before);
  for (let i = 0; i < count; i++) update.add(PdfDict.of({ Number: i }));
  for (const one of more) update.add(one);
  const after = opened(before.source.slice(0, before.source.length), update.bytes());
  const added = [...after.xref.entries].filter(([number]) => number >= before.size);
  for (const [number, { kind }] of added)
    if (kind === 'packed') expect(after.dict(new PdfRef(number, 0))!.get('Number')).not.toBeNull();
  return added.sort(([a], [b]) => a - b).map(([, { kind }]) => kind);
}

// ISO 32000-1, 7.5.7: object streams are for files with cross-reference streams, and hold no streams.
test('eight objects or more share a stream, where the file may have one', () => {
  const packed = (kinds: readonly string[]): number =>
    kinds.filter((kind) => kind === 'packed').length;
  expect(packed(kindsOf('stream', 7))).toBe(0);
  expect(packed(kindsOf('stream', 8))).toBe(8);
  expect(packed(kindsOf('stream', 30))).toBe(30);
  expect(packed(kindsOf('table', 30))).toBe(0);
  const stream = new WrittenObject([bytesOf('<< /Length 1 >>\nstream\nx\nendstream')]);
  expect(packed(kindsOf('stream', 8, [stream]))).toBe(8);
  expect(kindsOf('stream', 7, [stream]).every((kind) => kind === 'offset')).toBe(true);
});

test('objects that were replaced are known with where they stood, those that were not are not', () => {
  const first = builtPdf(BOOK, { form: 'table', trailer: '/Root 1 0 R' });
  expect(opened(first).xref.superseded).toEqual([]);
  const again = builtPdf(
    new Map([[2, '<< /Type /Pages /Kids [] /Count 0 /New 1 >>']]),
    { form: 'table', trailer: '/Root 1 0 R' },
    first,
  );
  const { superseded } = opened(again).xref;
  expect(superseded).toEqual([{ number: 2, offset: latin1(first).indexOf('2 0 obj') }]);
});

test('a number that no object can have is refused', () => {
  const whole = latin1(builtPdf(BOOK, { form: 'table', trailer: '/Root 1 0 R' }));
  const numbered = (number: number): Uint8Array =>
    bytesOf(whole.replace('\ntrailer', `\n${number} 1\n0000000009 00000 n \ntrailer`));
  expect(() => opened(numbered(2 ** 31))).toThrow('there can be no object');
  expect(() => opened(numbered(2 ** 31 - 1))).not.toThrow();
});

test('what is set while something is noted is noted, and nothing else', () => {
  const update = new PdfUpdate(file('table'));
  const [a, b, c] = [update.reserve(), update.reserve(), update.reserve()];
  update.set(a, 1);
  const noted = update.noting(() => update.set(b, 2));
  update.set(c, 3);
  expect(noted).toEqual([[b, 2]]);
  const failing = (): void => {
    throw new Error('in the middle');
  };
  expect(() => update.noting(failing)).toThrow('in the middle');
  expect(update.size).toBe(3);
});
