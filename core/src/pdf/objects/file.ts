import type { ByteSource } from './bytes';
import { bytesOf } from './bytes';
import { decodeStream, type Inflate } from './filters';
import { EndOfWindow, Parser, PdfSyntaxError } from './parser';
import { PdfDict, PdfRef, PdfStream, numberOr, type PdfValue } from './values';
import { numbersReferredTo } from './references';
import { readXref, type Xref } from './xref';

const FIRST_WINDOW = 2048;
const KEPT_OBJECTS = 20_000;

/**
 * A PDF opened for reading. Objects are parsed when they are asked for; opening reads only the
 * cross-references. Throws PdfSyntaxError where the file is damaged.
 */
export class PdfFile {
  readonly xref: Xref;
  private readonly objects = new Map<number, PdfValue>();
  private referred: ReadonlySet<number> | undefined;
  private readonly containers = new Map<
    number,
    { bytes: Uint8Array; offsets: Map<number, number> }
  >();

  /** `inflate` may be a faster one than the default, which runs anywhere. */
  constructor(
    readonly source: ByteSource,
    private readonly inflate?: Inflate,
  ) {
    this.xref = readXref(this);
    if (!(this.catalog.get('Pages') instanceof PdfRef))
      throw new PdfSyntaxError('the catalogue has no pages');
  }

  get trailer(): PdfDict {
    return this.xref.trailer;
  }

  get isEncrypted(): boolean {
    return this.trailer.get('Encrypt') !== null;
  }

  /** The document catalogue (7.7.2). */
  get catalog(): PdfDict {
    const root = this.resolve(this.trailer.get('Root'));
    if (!(root instanceof PdfDict)) throw new PdfSyntaxError('the file has no catalogue');
    return root;
  }

  /** The first number no object has yet. */
  get size(): number {
    let size = numberOr(this.trailer.get('Size')) ?? 1;
    for (const number of this.xref.entries.keys()) if (number >= size) size = number + 1;
    return size;
  }

  /** Numbers from `size` on that something in the file, or in an older revision of it, refers to. */
  get referredTo(): ReadonlySet<number> {
    this.referred ??= numbersReferredTo(this);
    return this.referred;
  }

  /** The object behind a reference; anything else is returned as it is. */
  resolve(value: PdfValue): PdfValue {
    for (let hops = 0; value instanceof PdfRef; hops++) {
      if (hops > 32) throw new PdfSyntaxError('references go round in a circle');
      value = this.object(value.object);
    }
    return value;
  }

  /** The dictionary behind a value, also of a stream; undefined for anything else. */
  dict(value: PdfValue): PdfDict | undefined {
    const resolved = this.resolve(value);
    if (resolved instanceof PdfStream) return resolved.dict;
    return resolved instanceof PdfDict ? resolved : undefined;
  }

  /** The array behind a value, as the file has it: not to be written to. Empty for anything else. */
  array(value: PdfValue): readonly PdfValue[] {
    const resolved = this.resolve(value);
    return Array.isArray(resolved) ? resolved : [];
  }

  /** The decoded bytes of a stream; see `decodeStream`. */
  decode(stream: PdfStream): Uint8Array {
    return decodeStream(stream, (value) => this.resolve(value), this.inflate);
  }

  /** Runs `read` on the bytes at an offset, with as much of the file as it turns out to need. */
  parserAt<T>(offset: number, read: (parser: Parser) => T): T {
    if (offset >= this.source.length) throw new PdfSyntaxError(`nothing at offset ${offset}`);
    for (let size = FIRST_WINDOW; ; size *= 4) {
      const complete = offset + size >= this.source.length;
      try {
        return read(new Parser(this.source.slice(offset, offset + size), 0, complete));
      } catch (error) {
        if (!(error instanceof EndOfWindow)) throw error;
      }
    }
  }

  /** The indirect object that starts at an offset. */
  objectAt(offset: number): { number: number; value: PdfValue } {
    return this.parserAt(offset, (parser) => {
      const number = parser.integer();
      const generation = parser.integer();
      if (number === undefined || generation === undefined || parser.keyword() !== 'obj')
        throw new PdfSyntaxError(`there is no object at offset ${offset}`);
      const value = parser.value();
      if (!(value instanceof PdfDict) || !parser.accept('stream')) return { number: number, value };
      if (parser.peek() === 13) parser.at++;
      if (parser.peek() === 10) parser.at++;
      const start = offset + parser.at;
      return { number, value: new PdfStream(value, () => this.raw(value, start)) };
    });
  }

  private raw(dict: PdfDict, start: number): Uint8Array {
    const length = numberOr(this.resolve(dict.get('Length')));
    if (length === undefined || length < 0 || start + length > this.source.length)
      throw new PdfSyntaxError(`the stream at ${start} has no valid length`);
    return this.source.slice(start, start + length);
  }

  private object(number: number): PdfValue {
    const known = this.objects.get(number);
    if (known !== undefined) return known;
    const entry = this.xref.entries.get(number);
    let value: PdfValue = null;
    if (entry?.kind === 'offset') {
      const found = this.objectAt(entry.offset);
      if (found.number !== number)
        throw new PdfSyntaxError(`object ${number} is not where it should be`);
      value = found.value;
    } else if (entry?.kind === 'packed') {
      value = this.packed(entry.container, number);
    }
    if (this.objects.size >= KEPT_OBJECTS) this.objects.clear();
    this.objects.set(number, value);
    return value;
  }

  /** An object out of an object stream (7.5.7). */
  private packed(container: number, number: number): PdfValue {
    let opened = this.containers.get(container);
    if (!opened) {
      const stream = this.object(container);
      if (!(stream instanceof PdfStream))
        throw new PdfSyntaxError(`object stream ${container} is missing`);
      const bytes = this.decode(stream);
      const parser = new Parser(bytes);
      const count = numberOr(this.resolve(stream.dict.get('N'))) ?? 0;
      const first = numberOr(this.resolve(stream.dict.get('First'))) ?? 0;
      const offsets = new Map<number, number>();
      for (let i = 0; i < count; i++) {
        const [packed, offset] = [parser.integer(), parser.integer()];
        if (packed === undefined || offset === undefined)
          throw new PdfSyntaxError(`object stream ${container} is broken`);
        offsets.set(packed, first + offset);
      }
      opened = { bytes, offsets };
      if (this.containers.size >= 64) this.containers.clear();
      this.containers.set(container, opened);
    }
    const place = opened.offsets.get(number);
    return place === undefined ? null : new Parser(opened.bytes, place).value();
  }
}

/** Whether the file carries the header of 7.5.2 where readers look for it: the first 1,024 bytes. */
export function hasPdfHeader(source: ByteSource): boolean {
  const head = source.slice(0, 1024);
  const mark = bytesOf('%PDF-');
  for (let i = 0; i + mark.length <= head.length; i++)
    if (mark.every((byte, k) => head[i + k] === byte)) return true;
  return false;
}
