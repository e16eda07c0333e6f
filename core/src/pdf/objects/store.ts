import { zlibSync } from 'fflate';
import { bytesOf, joinBytes } from './bytes';
import { serialize } from './serialize';
import type { PdfDict } from './values';
import { PdfRef, name, type PdfName, type PdfValue } from './values';

/** An object that is written down already, all but its number: its bytes in parts. */
export class WrittenObject {
  /** `isStream`: it cannot be in an object stream (ISO 32000-1, 7.5.7). */
  constructor(
    readonly parts: readonly Uint8Array[],
    readonly isStream = true,
  ) {}
}

/** Streams shorter than this are not worth compressing. */
const WORTH_DEFLATING = 128;

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

/** Where an object stands in a file. */
export interface Place {
  readonly number: number;
  readonly generation: number;
  readonly offset: number;
}

/** Objects that are put together before they are written down. */
export abstract class PdfObjects {
  protected readonly values = new Map<number, PdfValue | WrittenObject>();

  /** Objects get numbers from `nextNumber` on, but none that is taken. */
  constructor(
    protected nextNumber: number,
    protected readonly deflate: Deflate,
    private readonly isTaken: (number: number) => boolean = () => false,
  ) {}

  /** How many objects there are. */
  get size(): number {
    return this.values.size;
  }

  /** Reserves a number for an object that is set later. */
  reserve(): PdfRef {
    while (this.isTaken(this.nextNumber)) this.nextNumber++;
    return new PdfRef(this.nextNumber++, 0);
  }

  /** New objects get numbers after this one. */
  startAfter(number: number): void {
    this.nextNumber = Math.max(this.nextNumber, number + 1);
  }

  add(value: PdfValue | WrittenObject): PdfRef {
    const ref = this.reserve();
    this.values.set(ref.object, value);
    return ref;
  }

  addStream(dict: PdfDict, bytes: Uint8Array): PdfRef {
    return this.add(new WrittenObject([writtenStream(dict, bytes, this.deflate)]));
  }

  /** Fills a reserved object with a stream, compressed where that pays. */
  setStream(ref: PdfRef, dict: PdfDict, bytes: Uint8Array): void {
    this.set(ref, new WrittenObject([writtenStream(dict, bytes, this.deflate)]));
  }

  /** Replaces an object of the file, or fills a reserved one. */
  set(ref: PdfRef, value: PdfValue | WrittenObject): void {
    this.values.set(ref.object, value);
  }

  /** The objects as they follow an offset: their bytes, where each stands, and where they end. */
  protected written(
    from: number,
    generationOf: (number: number) => number,
    isElsewhere: (number: number) => boolean = () => false,
  ): { parts: Uint8Array[]; places: Place[]; end: number } {
    const parts: Uint8Array[] = [];
    const places: Place[] = [];
    let offset = from;
    const push = (bytes: Uint8Array): void => {
      parts.push(bytes);
      offset += bytes.length;
    };
    for (const number of [...this.values.keys()].sort((a, b) => a - b)) {
      if (isElsewhere(number)) continue;
      const generation = generationOf(number);
      places.push({ number, generation, offset });
      push(bytesOf(`${number} ${generation} obj\n`));
      const value = this.values.get(number)!;
      if (value instanceof WrittenObject) value.parts.forEach(push);
      else push(bytesOf(serialize(value)));
      push(END_OF_OBJECT);
    }
    return { parts, places, end: offset };
  }
}

export const END_OF_OBJECT = bytesOf('\nendobj\n');

/** The entries of a cross-reference table (7.5.4), without its trailer. */
export function xrefTable(places: readonly Place[]): string {
  const sections = runsOf(places).map(
    (run) =>
      `${run[0].number} ${run.length}\n` +
      run.map((p) => `${pad(p.offset, 10)} ${pad(p.generation, 5)} n\r\n`).join(''),
  );
  return `xref\n${sections.join('')}`;
}

const pad = (value: number, digits: number): string => String(value).padStart(digits, '0');

/** Places in runs of numbers that follow each other. */
export function runsOf<P extends { readonly number: number }>(places: readonly P[]): P[][] {
  const runs: P[][] = [];
  for (const place of places) {
    const run = runs.at(-1);
    if (run && run[run.length - 1].number + 1 === place.number) run.push(place);
    else runs.push([place]);
  }
  return runs;
}
