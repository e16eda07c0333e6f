import { opened, smallPdf } from '../testing/small-file';
import { bytesInMemory, bytesOf, latin1 } from './bytes';
import { Copier } from './copier';
import { PdfFile } from './file';
import { NewPdf } from './new-file';
import { EndOfWindow, Parser } from './parser';
import { runsOf, xrefTable } from './store';
import { textOf } from './text-string';
import type { PdfStream } from './values';
import { PdfDict, PdfRef, PdfString, name, nameText } from './values';

// ISO 32000-1, 7.5.4, example 2 (subsections; from memory), whose entry of the free list is written by whoever has one.
test('a cross-reference table has a section for each run of numbers', () => {
  const place = (number: number, offset: number, generation = 0) => ({
    number,
    offset,
    generation,
  });
  const places = [place(3, 25325), place(23, 25518, 2), place(24, 25635), place(30, 25777)];
  expect(xrefTable(places)).toBe(
    'xref\n3 1\n0000025325 00000 n\r\n23 2\n0000025518 00002 n\r\n0000025635 00000 n\r\n30 1\n0000025777 00000 n\r\n',
  );
  expect(runsOf([])).toEqual([]);
  expect(runsOf(places).map((run) => run.length)).toEqual([1, 2, 1]);
});

test('a new file is one that is read: header, objects, trailer', () => {
  const pdf = new NewPdf();
  const pages = pdf.add(PdfDict.of({ Type: name('Pages'), Kids: [], Count: 0 }));
  const root = pdf.add(PdfDict.of({ Type: name('Catalog'), Pages: pages }));
  const bytes = pdf.bytes(root);
  // 7.5.2: the version, and four bytes above 127 in a comment.
  expect(latin1(bytes.subarray(0, 10))).toBe('%PDF-1.7\n%');
  expect([...bytes.subarray(10, 14)].every((byte) => byte > 127)).toBe(true);
  expect(latin1(bytes)).toMatch(/startxref\n\d+\n%%EOF\n$/);
  // 7.5.4: the first entry is the head of the free list, of generation 65535.
  expect(latin1(bytes)).toContain('xref\n0 1\n0000000000 65535 f\r\n1 2\n');
  const file = new PdfFile(bytesInMemory(bytes));
  expect(file.trailer.get('Size')).toBe(3);
  const catalog = file.dict(file.trailer.get('Root'))!;
  expect(file.dict(catalog.get('Pages'))!.get('Count')).toBe(0);
});

const copied = (objects: readonly string[]) => {
  const from = opened(smallPdf(['<< /Type /Catalog /Pages 2 0 R >>', ...objects]));
  const to = new NewPdf();
  const finish = (ref: PdfRef): PdfFile =>
    new PdfFile(bytesInMemory(to.bytes(to.add(PdfDict.of({ Copy: ref, Pages: ref })))));
  return { from, to, finish };
};

test('objects are copied once, also where they lead to each other, and their streams byte for byte', () => {
  const { from, to, finish } = copied([
    '<< /Other 3 0 R /Again [3 0 R 3 0 R] >>',
    '<< /Back 2 0 R /Data 4 0 R >>',
    '<< /Length 3 /Kept (x) >>\nstream\n\x01\x02\x03\nendstream',
  ]);
  const copier = new Copier(from, to);
  expect(copier.copyOf(2)).toBeUndefined();
  const first = copier.copy(new PdfRef(2, 0)) as PdfRef;
  expect(copier.copyOf(2)).toBe(first);
  expect(copier.copy(new PdfRef(2, 0))).toBe(first);
  expect(to.size).toBe(3);
  const file = finish(first);
  const one = file.dict(first)!;
  const [again, more] = one.get('Again') as PdfRef[];
  expect([again, more]).toEqual([one.get('Other'), one.get('Other')]);
  const other = file.dict(again)!;
  expect(other.get('Back')).toEqual(first);
  const data = file.resolve(other.get('Data')) as PdfStream;
  expect([...data.raw()]).toEqual([1, 2, 3]);
  expect(textOf(data.dict.get('Kept'))).toBe('x');
});

test('what leads out of a page is not followed; with places for parents they are', () => {
  const objects = [
    '<< /Parent 3 0 R /StructParent 4 /P 3 0 R /Keep 5 /PieceInfo << >> /Annots [] >>',
    '<< /Type /Page /Kids [2 0 R] >>',
  ];
  const alone = copied(objects);
  const ref = new Copier(alone.from, alone.to).copy(new PdfRef(2, 0)) as PdfRef;
  const entries = alone.finish(ref).dict(ref)!.entries;
  expect([...entries.keys()].sort()).toEqual(['Keep']);

  const { from, to, finish } = copied(objects);
  const page = to.reserve();
  const copier = new Copier(from, to, new Map([[3, page]]));
  const known = copier.copy(new PdfRef(2, 0)) as PdfRef;
  to.set(page, PdfDict.of({ Type: name('Page') }));
  const kept = finish(known).dict(known)!;
  expect([...kept.entries.keys()].sort()).toEqual(['Annots', 'Keep', 'P', 'Parent']);
  expect([kept.get('P'), kept.get('Parent')]).toEqual([page, page]);
});

test('a copy takes another dictionary, in the place it has', () => {
  const { from, to, finish } = copied(['<< /Old 1 >>', '<< /To 2 0 R >>']);
  const copier = new Copier(from, to);
  const pointing = copier.copy(new PdfRef(3, 0)) as PdfRef;
  const place = copier.copyOf(2)!;
  expect(copier.copyAs(new PdfRef(2, 0), PdfDict.of({ New: 2 }))).toBe(place);
  const file = finish(pointing);
  expect([...file.dict(file.dict(pointing)!.get('To'))!.entries.keys()]).toEqual(['New']);
  expect(copier.copyAs(new PdfRef(9, 0), PdfDict.of({}))).toBe(copier.copyOf(9));
});

const CRLF = (text: string): string => text.replaceAll('\n', '\r\n');

// ISO 32000-1, 7.2.3: an end of line is CR, LF or both; 7.5.5: the last startxref counts.
test('the last startxref is found, whatever ends its lines, in the last two kilobytes', () => {
  const bytes = latin1(smallPdf(['<< /Type /Catalog /Pages 2 0 R >>', '(a)']));
  const tail = bytes.indexOf('startxref');
  const doubled = `${bytes.slice(0, tail)}${CRLF('startxref\n5\n%%EOF\n')}${CRLF(bytes.slice(tail))}`;
  const file = opened(bytesOf(doubled));
  expect(textOf(file.resolve(new PdfRef(2, 0)))).toBe('a');
  expect(() => opened(bytesOf(bytes + ' '.repeat(2100)))).toThrow('startxref');
  expect(file.resolve(new PdfRef(99, 0))).toBeNull();
});

test('an offset without an object, or past the end, is said', () => {
  const file = opened(smallPdf(['<< /Type /Catalog /Pages 2 0 R >>']));
  for (const offset of [11, 13, 20]) expect(() => file.objectAt(offset)).toThrow('no object');
  expect(() => file.objectAt(file.source.length)).toThrow('nothing at offset');
  expect(() => file.objectAt(1e9)).toThrow('nothing at offset');
  expect(file.objectAt(9).value).toBeInstanceOf(PdfDict);
});

// ISO 32000-1, 7.2.4: a comment goes from % to the end of its line and counts as white space; 7.2.2: what is that.
test('comments and all white space part what stands beside them', () => {
  const parse = (text: string) => new Parser(bytesOf(text)).value();
  for (const gap of ['\0', '\t', '\n', '\f', '\r', ' ', '% 5 (\n', '%]\r', '%\r\n% 7\n \t'])
    expect(parse(`[1${gap}2]`)).toEqual([1, 2]);
  expect(nameText(parse('/Name% comment\n'))).toBe('Name');
  const bytes = ({ bytes: all }: PdfString): number[] => [...all];
  expect(bytes(parse('(a % b)') as PdfString)).toEqual([...bytesOf('a % b')]);
  expect(bytes(parse('<41\0\t 4 2>') as PdfString)).toEqual([0x41, 0x42]);
  expect(parse('<>')).toEqual(new PdfString(new Uint8Array()));
});

test('what is longer than is read at first is read whole, wherever it stands', () => {
  const long = 'sand '.repeat(40_000);
  const file = opened(
    smallPdf(['<< /Type /Catalog /Pages 2 0 R >>', `(${long})`, '[ (b) ]', `(${long}x)`]),
  );
  expect(textOf(file.resolve(new PdfRef(2, 0)))).toBe(long);
  expect(textOf(file.resolve(new PdfRef(4, 0)))).toBe(`${long}x`);
});

test('a window that ends where something could go on asks for more, the end of a file does not', () => {
  const integer = (text: string, isComplete: boolean) =>
    new Parser(bytesOf(text), 0, isComplete).integer();
  expect(integer('12', true)).toBe(12);
  expect(integer('12 7', false)).toBe(12);
  expect(() => integer('12', false)).toThrow(EndOfWindow);
  expect(() => new Parser(bytesOf('  '), 0, false).skipSpace()).toThrow(EndOfWindow);
  expect(() => new Parser(bytesOf('% no end'), 0, false).skipSpace()).toThrow(EndOfWindow);
  expect(() => new Parser(bytesOf('  '), 0, true).skipSpace()).not.toThrow();
  expect(() => new Parser(bytesOf(' 1'), 0, false).skipSpace()).not.toThrow();
});

// ISO 32000-1, 7.9.2.2 and ISO 32000-2, 7.9.2.2.1: UTF-8 with its mark; bytes that are none are shown all the same.
test('a text that says it is UTF-8 and is not keeps its letters', () => {
  const marked = (...bytes: number[]): PdfString =>
    new PdfString(Uint8Array.from([0xef, 0xbb, 0xbf, ...bytes]));
  expect(textOf(marked(0xc3, 0xa9))).toBe('é');
  expect(textOf(marked(0x41, 0xe9))).toBe('Aé');
});
