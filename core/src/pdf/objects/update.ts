import { zlibSync } from 'fflate';
import { bytesOf, joinBytes } from './bytes';
import type { PdfFile } from './file';
import { serialize } from './serialize';
import { PdfDict, PdfRef, name, type PdfValue } from './values';

interface NewStream {
  readonly dict: PdfDict;
  readonly bytes: Uint8Array;
}

/** Streams shorter than this are not worth compressing. */
const WORTH_DEFLATING = 3072;

/** Compresses to the zlib format (RFC 1950). */
export type Deflate = (bytes: Uint8Array) => Uint8Array;
const deflateHere: Deflate = (bytes) => zlibSync(bytes, { level: 6 });

/**
 * An incremental update (ISO 32000-1, 7.5.6): new and replaced objects with a cross-reference
 * section of their own, to be appended to the untouched file.
 */
export class PdfUpdate {
  private readonly values = new Map<number, PdfValue | NewStream>();
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

  add(value: PdfValue): PdfRef {
    const ref = this.reserve();
    this.values.set(ref.object, value);
    return ref;
  }

  addStream(dict: PdfDict, bytes: Uint8Array): PdfRef {
    const ref = this.reserve();
    this.values.set(ref.object, { dict, bytes });
    return ref;
  }

  /** Replaces an object of the file, or fills a reserved one. */
  set(ref: PdfRef, value: PdfValue): void {
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
      push(this.objectBytes(number, generation, this.values.get(number)!));
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
      this.objectBytes(own.number, 0, { dict, bytes: rows }),
      bytesOf(`startxref\n${offset}\n%%EOF\n`),
    ]);
  }

  private objectBytes(number: number, generation: number, value: PdfValue | NewStream): Uint8Array {
    const head = `${number} ${generation} obj\n`;
    if (!isNewStream(value)) return bytesOf(`${head}${serialize(value)}\nendobj\n`);
    const deflated = value.bytes.length >= WORTH_DEFLATING;
    const data = deflated ? this.deflate(value.bytes) : value.bytes;
    const dict = value.dict.with({
      Length: data.length,
      Filter: deflated ? name('FlateDecode') : null,
    });
    return joinBytes([
      bytesOf(`${head}${serialize(dict)}\nstream\n`),
      data,
      bytesOf('\nendstream\nendobj\n'),
    ]);
  }
}

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

function isNewStream(value: PdfValue | NewStream): value is NewStream {
  return typeof value === 'object' && value !== null && 'bytes' in value && 'dict' in value;
}
