import { bytesOf, joinBytes } from './bytes';
import type { PdfFile } from './file';
import { KeptPacks } from './kept-packs';
import { isPackable } from './object-streams';
import { serialize } from './serialize';
import {
  END_OF_OBJECT,
  PdfObjects,
  deflateHere,
  runsOf,
  writtenStream,
  xrefTable,
  type Deflate,
  type Place,
  type WrittenObject,
} from './store';
import { PdfDict, name, type PdfRef, type PdfValue } from './values';

/** Where an object is that lies in an object stream. */
interface InStream {
  readonly number: number;
  readonly container: number;
  readonly index: number;
}

/** An object that an update adds or replaces. */
export type NewObject = readonly [PdfRef, PdfValue | WrittenObject];

/** Fewer objects stand alone. */
const WORTH_PACKING = 8;

/**
 * An incremental update (ISO 32000-1, 7.5.6): new and replaced objects with a cross-reference
 * section of their own, to be appended to the untouched file. A number that anything in the file refers to is
 * not given to a new object, also where no object has it: such a reference means null (7.3.10).
 */
export class PdfUpdate extends PdfObjects {
  private noted: NewObject[] | undefined;

  /** `deflate` may be a faster one than the default, which runs anywhere; `packs` those of an update before. */
  constructor(
    readonly file: PdfFile,
    deflate: Deflate = deflateHere,
    private readonly packs = new KeptPacks(),
  ) {
    super(file.size, deflate, (number) => file.referredTo.has(number));
  }

  override set(ref: PdfRef, value: PdfValue | WrittenObject): void {
    this.noted?.push([ref, value]);
    super.set(ref, value);
  }

  /** The objects that are set by `work`. */
  noting(work: () => void): readonly NewObject[] {
    const noted: NewObject[] = [];
    this.noted = noted;
    try {
      work();
    } finally {
      this.noted = undefined;
    }
    return noted;
  }

  /** The bytes to append to the file; empty when nothing was changed. */
  bytes(): Uint8Array {
    if (this.values.size === 0) return new Uint8Array();
    const start = this.file.source.length + 1;
    const inStreams = this.file.xref.form === 'stream' ? this.pack() : new Map<number, InStream>();
    const { parts, places, end } = this.written(
      start,
      (number) => this.generationOf(number),
      (number) => inStreams.has(number),
    );
    const xref =
      this.file.xref.form === 'table'
        ? this.table(places, end)
        : this.stream(places, inStreams, end);
    return joinBytes([bytesOf('\n'), ...parts, xref]);
  }

  /** Puts objects that may be there into object streams, which a file with cross-reference streams may have. */
  private pack(): Map<number, InStream> {
    const packable = [...this.values]
      .filter(([number, value]) => this.generationOf(number) === 0 && isPackable(value))
      .sort(([a], [b]) => a - b);
    const found = new Map<number, InStream>();
    if (packable.length < WORTH_PACKING) return found;
    for (const { objects, stream } of this.packs.pack(packable, this.file.size, this.deflate)) {
      const { object: container } = this.add(stream);
      objects.forEach(([number], index) => found.set(number, { number, container, index }));
    }
    return found;
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
    return bytesOf(
      `${xrefTable(places)}trailer\n${serialize(this.trailer(this.nextNumber))}\n` +
        `startxref\n${offset}\n%%EOF\n`,
    );
  }

  private stream(
    places: readonly Place[],
    inStreams: ReadonlyMap<number, InStream>,
    offset: number,
  ): Uint8Array {
    const own = { number: this.reserve().object, generation: 0, offset };
    const all = [...places, ...inStreams.values(), own].sort((a, b) => a.number - b.number);
    const rows = new Uint8Array(all.length * 8);
    all.forEach((place, i) => {
      const isPacked = 'container' in place;
      rows[i * 8] = isPacked ? 2 : 1;
      let rest = isPacked ? place.container : place.offset;
      for (let k = 5; k >= 1; k--) {
        rows[i * 8 + k] = rest % 256;
        rest = Math.floor(rest / 256);
      }
      const third = isPacked ? place.index : place.generation;
      rows[i * 8 + 6] = third >> 8;
      rows[i * 8 + 7] = third & 255;
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
