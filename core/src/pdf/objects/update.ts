import { zlibSync } from 'fflate';
import { bytesOf, joinBytes } from './bytes';
import type { PdfFile } from './file';
import { serialize } from './serialize';
import { PdfDict, PdfRef, name, type PdfName, type PdfValue } from './values';

/** An object that is written down already, all but its number: its bytes in parts. */
export class WrittenObject {
  constructor(readonly parts: readonly Uint8Array[]) {}
}

/** Streams shorter than this are not worth compressing. */
const WORTH_DEFLATING = 3072;

/** Compresses to the zlib format (RFC 1950). */
export type Deflate = (bytes: Uint8Array) => Uint8Array;
export const deflateHere: Deflate = (bytes) => zlibSync(bytes, { level: 6 });

/** What a stream stores of its bytes, compressed where that pays, and by which filter (7.4). */
export function streamData(
  bytes: Uint8Array,
  deflate: Deflate,
): { data: Uint8Array; filter: PdfName | undefined } {
  return bytes.length >= WORTH_DEFLATING
    ? { data: deflate(bytes), filter: name('FlateDecode') }
    : { data: bytes, filter: undefined };
}

/** A stream with its dictionary as it stands in a file (7.3.8), compressed where that pays. */
export function writtenStream(dict: PdfDict, bytes: Uint8Array, deflate: Deflate): Uint8Array {
  const { data, filter } = streamData(bytes, deflate);
  const whole = dict.with({ Length: data.length, Filter: filter ?? null });
  return joinBytes([bytesOf(`${serialize(whole)}\nstream\n`), data, bytesOf('\nendstream')]);
}

/**
 * An incremental update (ISO 32000-1, 7.5.6): new and replaced objects with a cross-reference
 * section of their own, to be appended to the untouched file.
 */
export class PdfUpdate {
  private readonly values = new Map<number, PdfValue | WrittenObject>();
  private nextNumber: number;

  /** `deflate` may be a faster one than the default, which runs anywhere. */
  constructor(
    private readonly file: PdfFile,
    private readonly deflate: Deflate = deflateHere,
  ) {
    this.nextNumber = file.size;
  }

  /** Reserves a number for an object that is set later. */
  reserve(): PdfRef {
    return new PdfRef(this.nextNumber++, 0);
  }

  add(value: PdfValue | WrittenObject): PdfRef {
    const ref = this.reserve();
    this.values.set(ref.object, value);
    return ref;
  }

  addStream(dict: PdfDict, bytes: Uint8Array): PdfRef {
    return this.add(new WrittenObject([writtenStream(dict, bytes, this.deflate)]));
  }

  /** Replaces an object of the file, or fills a reserved one. */
  set(ref: PdfRef, value: PdfValue | WrittenObject): void {
    this.values.set(ref.object, value);
  }

  /** The bytes to append to the file; empty when nothing was changed. */
  bytes(): Uint8Array {
    if (this.values.size === 0) return new Uint8Array();
    const parts: Uint8Array[] = [bytesOf('\n')];
    let offset = this.file.source.length + 1;
    const push = (bytes: Uint8Array): void => {
      parts.push(bytes);
      offset += bytes.length;
    };
    const places: Place[] = [];
    for (const number of [...this.values.keys()].sort((a, b) => a - b)) {
      const generation = this.generationOf(number);
      places.push({ number, generation, offset });
      push(bytesOf(`${number} ${generation} obj\n`));
      const value = this.values.get(number)!;
      if (value instanceof WrittenObject) value.parts.forEach(push);
      else push(bytesOf(serialize(value)));
      push(END_OF_OBJECT);
    }
    if (this.file.xref.form === 'table') push(this.table(places, offset));
    else push(this.stream(places, offset));
    return joinBytes(parts);
  }

  private generationOf(number: number): number {
    const entry = this.file.xref.entries.get(number);
    return entry?.kind === 'offset' ? entry.generation : 0;
  }

  private trailer(size: number): PdfDict {
    const kept = ['Root', 'Info', 'ID'].map((key) => [key, this.file.trailer.get(key)] as const);
    return PdfDict.of({
      ...Object.fromEntries(kept.filter(([, value]) => value !== null)),
      Size: size,
      Prev: this.file.xref.start,
    });
  }

  private table(places: readonly Place[], offset: number): Uint8Array {
    const sections = runsOf(places).map(
      (run) =>
        `${run[0].number} ${run.length}\n` +
        run.map((p) => `${pad(p.offset, 10)} ${pad(p.generation, 5)} n\r\n`).join(''),
    );
    return bytesOf(
      `xref\n${sections.join('')}trailer\n${serialize(this.trailer(this.nextNumber))}\n` +
        `startxref\n${offset}\n%%EOF\n`,
    );
  }

  private stream(places: readonly Place[], offset: number): Uint8Array {
    const own = { number: this.nextNumber, generation: 0, offset };
    const all = [...places, own];
    const rows = new Uint8Array(all.length * 8);
    all.forEach((place, i) => {
      rows[i * 8] = 1;
      let rest = place.offset;
      for (let k = 5; k >= 1; k--) {
        rows[i * 8 + k] = rest % 256;
        rest = Math.floor(rest / 256);
      }
      rows[i * 8 + 6] = place.generation >> 8;
      rows[i * 8 + 7] = place.generation & 255;
    });
    const dict = this.trailer(own.number + 1).with({
      Type: name('XRef'),
      W: [1, 5, 2],
      Index: runsOf(all).flatMap((run) => [run[0].number, run.length]),
    });
    return joinBytes([
      bytesOf(`${own.number} 0 obj\n`),
      writtenStream(dict, rows, this.deflate),
      END_OF_OBJECT,
      bytesOf(`startxref\n${offset}\n%%EOF\n`),
    ]);
  }
}

const END_OF_OBJECT = bytesOf('\nendobj\n');

interface Place {
  readonly number: number;
  readonly generation: number;
  readonly offset: number;
}

const pad = (value: number, digits: number): string => String(value).padStart(digits, '0');

function runsOf(places: readonly Place[]): Place[][] {
  const runs: Place[][] = [];
  for (const place of places) {
    const run = runs.at(-1);
    if (run && run[run.length - 1].number + 1 === place.number) run.push(place);
    else runs.push([place]);
  }
  return runs;
}
