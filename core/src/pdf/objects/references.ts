import { PdfSyntaxError } from './parser';
import { PdfRef, PdfStream, nameText, type PdfValue } from './values';

const WINDOW = 1024 * 1024;
/** Longer than any reference is written, with the white space in it. */
const OVERLAP = 128;
const LETTER_R = 82;

const isDigit = (c: number | undefined): boolean => c !== undefined && c >= 48 && c <= 57;
const isSpace = (c: number | undefined): boolean =>
  c === 32 || c === 10 || c === 13 || c === 9 || c === 0 || c === 12;

/** A file as it is looked through. */
interface Searched {
  readonly source: { readonly length: number; slice(start: number, end: number): Uint8Array };
  readonly size: number;
  readonly xref: {
    readonly containers: ReadonlySet<number>;
    readonly superseded: readonly { readonly number: number; readonly offset: number }[];
  };
  resolve(ref: PdfRef): PdfValue;
  objectAt(offset: number): { readonly value: PdfValue };
  decode(stream: PdfStream): Uint8Array;
}

/**
 * Object numbers from `file.size` on that bytes of the file look to refer to: “12 0 R” (ISO 32000-1, 7.3.10),
 * wherever it stands, in objects that have been replaced and in object streams as well. What only looks like a
 * reference is counted too, which costs a number and no more.
 */
export function numbersReferredTo(file: Searched): ReadonlySet<number> {
  const found = new Set<number>();
  const { source, size, xref } = file;
  for (let at = 0; at < source.length; at += WINDOW - OVERLAP)
    lookIn(source.slice(at, at + WINDOW), size, found);
  for (const number of xref.containers)
    lookInContainer(() => file.resolve(new PdfRef(number, 0)), file, found);
  for (const { number, offset } of xref.superseded)
    if (xref.containers.has(number))
      lookInContainer(() => file.objectAt(offset).value, file, found);
  return found;
}

function lookInContainer(read: () => unknown, file: Searched, found: Set<number>): void {
  try {
    const stream = read();
    if (stream instanceof PdfStream && nameText(stream.dict.get('Type')) === 'ObjStm')
      lookIn(file.decode(stream), file.size, found);
  } catch (error) {
    // A stream that cannot be read holds no objects that refer to anything.
    if (!(error instanceof PdfSyntaxError)) throw error;
  }
}

function lookIn(bytes: Uint8Array, from: number, found: Set<number>): void {
  for (let r = bytes.indexOf(LETTER_R); r >= 0; r = bytes.indexOf(LETTER_R, r + 1)) {
    let i = before(bytes, r - 1, isSpace);
    if (i === r - 1) continue;
    const generation = before(bytes, i, isDigit);
    if (generation === i) continue;
    i = before(bytes, generation, isSpace);
    if (i === generation) continue;
    const start = before(bytes, i, isDigit);
    if (start === i || i - start > 10) continue;
    let number = 0;
    for (let k = start + 1; k <= i; k++) number = number * 10 + bytes[k] - 48;
    if (number >= from) found.add(number);
  }
}

/** The last place before which, going back from `at`, something no longer holds. */
function before(bytes: Uint8Array, at: number, holds: (c: number | undefined) => boolean): number {
  let i = at;
  while (i >= 0 && at - i < OVERLAP && holds(bytes[i])) i--;
  return i;
}
