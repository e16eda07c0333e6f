import { bytesOf, joinBytes } from './bytes';
import { serialize } from './serialize';
import { WrittenObject } from './store';
import { PdfDict, PdfStream, name, type PdfValue } from './values';

/** Objects that are packed into one object stream. */
export interface Packed {
  readonly dict: PdfDict;
  readonly bytes: Uint8Array;
}

/** Whether an object may be in an object stream, if it is of generation 0 (ISO 32000-1, 7.5.7). */
export const isPackable = (value: PdfValue | WrittenObject): boolean =>
  value instanceof WrittenObject ? !value.isStream : !(value instanceof PdfStream);

/** Packs objects into one object stream (7.5.7), in the order given. */
export function packed(objects: readonly (readonly [number, PdfValue | WrittenObject])[]): Packed {
  let head = '';
  let length = 0;
  const parts: Uint8Array[] = [];
  for (const [number, value] of objects) {
    head += `${number} ${length} `;
    const own = value instanceof WrittenObject ? value.parts : [bytesOf(serialize(value))];
    parts.push(...own, SPACE);
    length += own.reduce((sum, part) => sum + part.length, 0) + SPACE.length;
  }
  const first = bytesOf(head);
  return {
    dict: PdfDict.of({ Type: name('ObjStm'), N: objects.length, First: first.length }),
    bytes: joinBytes([first, ...parts]),
  };
}

const SPACE = bytesOf('\n');
