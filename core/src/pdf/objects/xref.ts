import type { ByteSource } from './bytes';
import { latin1 } from './bytes';
import { PdfSyntaxError } from './parser';
import { PdfDict, PdfStream, nameText, numberOr, type PdfValue } from './values';

/** Where an object is: at a byte offset, or at an index in an object stream; or nowhere. */
export type XrefEntry =
  | { readonly kind: 'offset'; readonly offset: number; readonly generation: number }
  | { readonly kind: 'packed'; readonly container: number; readonly index: number }
  | { readonly kind: 'free' };

export interface Xref {
  readonly entries: Map<number, XrefEntry>;
  readonly trailer: PdfDict;
  /** Offset of the newest section, to be the next section's /Prev. */
  readonly start: number;
  /** Where objects were that a newer section has elsewhere: what older revisions of the file hold. */
  readonly superseded: readonly { readonly number: number; readonly offset: number }[];
  /** The numbers of all object streams that any section names. */
  readonly containers: ReadonlySet<number>;
  /** The form the newest section has: an update must use the same one (ISO 32000-1, 7.5.8.4). */
  readonly form: 'table' | 'stream';
}

/** What reading cross-references needs of a file. */
export interface XrefReader {
  readonly source: ByteSource;
  parserAt<T>(offset: number, read: (parser: import('./parser').Parser) => T): T;
  objectAt(offset: number): { number: number; value: PdfValue };
  decode(stream: PdfStream): Uint8Array;
}

/** Reads the chain of cross-reference sections (7.5.4, 7.5.8), newest first. */
export function readXref(file: XrefReader): Xref {
  const start = findStart(file.source);
  const found = new Sections();
  const queue = [start];
  const seen = new Set<number>();
  let trailer: PdfDict | undefined;
  let form: Xref['form'] | undefined;
  while (queue.length > 0) {
    const offset = queue.shift()!;
    if (seen.has(offset)) continue;
    seen.add(offset);
    const isTable = latin1(file.source.slice(offset, offset + 20))
      .trimStart()
      .startsWith('xref');
    const section = isTable ? readTable(file, offset, found) : readStream(file, offset, found);
    trailer ??= section;
    form ??= isTable ? 'table' : 'stream';
    // A hybrid file's stream comes before its previous section.
    for (const key of ['XRefStm', 'Prev']) {
      const next = numberOr(section.get(key));
      if (next !== undefined) queue.push(next);
    }
  }
  const { entries, superseded, containers } = found;
  return { entries, superseded, containers, trailer: trailer!, start, form: form! };
}

/** Numbers above this no file can mean (ISO 32000-1, annex C.2, has 8,388,607). */
const HIGHEST_NUMBER = 2 ** 31 - 1;

/** What the sections that were read so far say; the newest is read first. */
class Sections {
  readonly entries = new Map<number, XrefEntry>();
  readonly superseded: { number: number; offset: number }[] = [];
  readonly containers = new Set<number>();

  add(number: number, entry: XrefEntry): void {
    if (number > HIGHEST_NUMBER) throw new PdfSyntaxError(`there can be no object ${number}`);
    if (entry.kind === 'packed') this.containers.add(entry.container);
    const newer = this.entries.get(number);
    if (!newer) this.entries.set(number, entry);
    else if (entry.kind === 'offset' && !(newer.kind === 'offset' && newer.offset === entry.offset))
      this.superseded.push({ number, offset: entry.offset });
  }
}

function findStart(source: ByteSource): number {
  const from = Math.max(0, source.length - 2048);
  const tail = latin1(source.slice(from, source.length));
  const match = /startxref\s+(\d+)\s+(?![^]*startxref\s+\d)/.exec(tail);
  if (!match) throw new PdfSyntaxError('the end of the file is missing (no startxref)');
  return Number(match[1]);
}

function readTable(file: XrefReader, offset: number, sections: Sections): PdfDict {
  return file.parserAt(offset, (parser) => {
    parser.accept('xref');
    const found: [number, XrefEntry][] = [];
    while (!parser.accept('trailer')) {
      const first = integer(parser.integer());
      const count = integer(parser.integer());
      for (let i = 0; i < count; i++) {
        const at = integer(parser.integer());
        const generation = integer(parser.integer());
        const type = parser.keyword();
        if (type !== 'n' && type !== 'f')
          throw new PdfSyntaxError('the cross-reference table is broken');
        found.push([
          first + i,
          type === 'n' && at > 0 ? { kind: 'offset', offset: at, generation } : { kind: 'free' },
        ]);
      }
    }
    const trailer = parser.value();
    if (!(trailer instanceof PdfDict)) throw new PdfSyntaxError('the trailer is broken');
    for (const [number, entry] of found) sections.add(number, entry);
    return trailer;
  });
}

function integer(value: number | undefined): number {
  if (value === undefined) throw new PdfSyntaxError('the cross-reference table is broken');
  return value;
}

function readStream(file: XrefReader, offset: number, sections: Sections): PdfDict {
  const stream = file.objectAt(offset).value;
  if (!(stream instanceof PdfStream) || nameText(stream.dict.get('Type')) !== 'XRef')
    throw new PdfSyntaxError(`there is no cross-reference section at ${offset}`);
  const numbers = (value: PdfValue): number[] =>
    Array.isArray(value) ? value.map((v) => numberOr(v) ?? 0) : [];
  const widths = numbers(stream.dict.get('W'));
  const isWidth = (width: number): boolean => Number.isInteger(width) && width >= 0 && width <= 8;
  if (widths.length < 3 || !widths.every(isWidth) || widths.every((width) => width === 0))
    throw new PdfSyntaxError('a cross-reference stream has no widths that can be');
  const index = numbers(stream.dict.get('Index'));
  if (index.length === 0) index.push(0, numberOr(stream.dict.get('Size')) ?? 0);
  const data = file.decode(stream);
  let at = 0;
  const field = (width: number): number => {
    let value = 0;
    for (let i = 0; i < width; i++) value = value * 256 + (data[at++] ?? 0);
    return value;
  };
  for (let k = 0; k + 1 < index.length; k += 2) {
    for (let i = 0; i < index[k + 1] && at < data.length; i++) {
      const type = widths[0] > 0 ? field(widths[0]) : 1;
      const second = field(widths[1]);
      const third = field(widths[2]);
      sections.add(index[k] + i, entryOf(type, second, third));
    }
  }
  return stream.dict;
}

function entryOf(type: number, second: number, third: number): XrefEntry {
  if (type === 1) return { kind: 'offset', offset: second, generation: third };
  if (type === 2) return { kind: 'packed', container: second, index: third };
  return { kind: 'free' };
}
