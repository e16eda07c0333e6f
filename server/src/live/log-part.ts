import type { WrittenLog } from '../documents/operation-log';

/** Between two operations in a list of JSON. */
const COMMA = 1;

/** A part of a document's log, each operation written down once for all who are told. */
export class LogPart {
  /** The document's, now. */
  readonly revision: number;
  /** Of its operations, in their order. */
  readonly revisions: readonly number[];
  /** The operations in UTF-8 with commas between them, and where each begins. */
  private readonly bytes: Buffer;
  private readonly begins: readonly number[];

  constructor({ revision, operations }: WrittenLog) {
    this.revision = revision;
    this.revisions = operations.map((one) => one.revision);
    this.bytes = Buffer.from(operations.map(({ text }) => text).join(','));
    let at = 0;
    this.begins = operations.map(({ text }) => {
      const begin = at;
      at += Buffer.byteLength(text) + COMMA;
      return begin;
    });
  }

  get last(): number | undefined {
    return this.revisions.at(-1);
  }

  get size(): number {
    return this.bytes.length;
  }

  /** The operations but those left out, as the inside of a list of JSON: pieces to be put one after the other. */
  without(isLeftOut: (revision: number) => boolean): Buffer[] {
    const pieces: Buffer[] = [];
    const take = (from: number, to: number): void => {
      if (from === to) return;
      if (pieces.length > 0) pieces.push(Buffer.from(','));
      pieces.push(this.bytes.subarray(this.begins[from], this.endOf(to - 1)));
    };
    let from = 0;
    this.revisions.forEach((revision, i) => {
      if (!isLeftOut(revision)) return;
      take(from, i);
      from = i + 1;
    });
    take(from, this.revisions.length);
    return pieces;
  }

  private endOf(i: number): number {
    return i + 1 < this.begins.length ? this.begins[i + 1] - COMMA : this.bytes.length;
  }
}
