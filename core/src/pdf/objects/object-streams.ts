import { bytesOf, joinBytes } from './bytes';
import { serialize } from './serialize';
import { WrittenObject } from './store';
import { PdfDict, PdfStream, name, type PdfValue } from './values';

/** Objects in one stream: more compress better, fewer are found sooner. */
const TOGETHER = 200;

/** Objects that are packed into one object stream. */
export interface Packed {
  readonly numbers: readonly number[];
  readonly dict: PdfDict;
  readonly bytes: Uint8Array;
}

/** Whether an object may be in an object stream, if it is of generation 0 (ISO 32000-1, 7.5.7). */
export const isPackable = (value: PdfValue | WrittenObject): boolean =>
  value instanceof WrittenObject ? !value.isStream : !(value instanceof PdfStream);

/** Packs objects into object streams (7.5.7), in the order given. */
export function packed(
  objects: readonly (readonly [number, PdfValue | WrittenObject])[],
): Packed[] {
  const streams: Packed[] = [];
  for (let from = 0; from < objects.length; from += TOGETHER)
    streams.push(together(objects.slice(from, from + TOGETHER)));
  return streams;
}

function together(objects: readonly (readonly [number, PdfValue | WrittenObject])[]): Packed {
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
    numbers: objects.map(([number]) => number),
    dict: PdfDict.of({ Type: name('ObjStm'), N: objects.length, First: first.length }),
    bytes: joinBytes([first, ...parts]),
  };
}

const SPACE = bytesOf('\n');
