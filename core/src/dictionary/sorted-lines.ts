import { strFromU8, strToU8 } from 'fflate';
import type { ByteSource } from '../pdf/objects/bytes';

const NEWLINE = 10;
/** Bytes read at a time while the end of a line is looked for. */
const STEP = 512;

/** The line of a file that begins at a place, without its end. */
export const lineFrom = (file: ByteSource, start: number): string =>
  strFromU8(file.slice(start, endOf(file, start)));

/**
 * The line whose first field, up to a space, is `key`, of a file whose lines are sorted by their bytes; by halving,
 * so that a large file is hardly read.
 */
export function lineWith(file: ByteSource, key: string): string | undefined {
  const wanted = strToU8(`${key} `);
  let [from, to] = [0, file.length];
  while (from < to) {
    const start = lineStart(file, from + ((to - from) >> 1), from);
    const order = compare(file.slice(start, start + wanted.length), wanted);
    if (order === 0) return lineFrom(file, start);
    if (order < 0) from = Math.min(file.length, endOf(file, start) + 1);
    else to = start;
  }
  return undefined;
}

/** Where the line begins in which a byte is, not before `least`. */
function lineStart(file: ByteSource, at: number, least: number): number {
  for (let end = at; end > least; end -= STEP) {
    const from = Math.max(least, end - STEP);
    const newline = file.slice(from, end).lastIndexOf(NEWLINE);
    if (newline >= 0) return from + newline + 1;
  }
  return least;
}

/** Where the line ends that begins at a place: at a newline, or with the file. */
function endOf(file: ByteSource, start: number): number {
  for (let from = start; from < file.length; from += STEP) {
    const at = file.slice(from, from + STEP).indexOf(NEWLINE);
    if (at >= 0) return from + at;
  }
  return file.length;
}

function compare(a: Uint8Array, b: Uint8Array): number {
  for (let i = 0; i < b.length; i++) {
    const difference = (a[i] ?? -1) - b[i];
    if (difference !== 0) return difference;
  }
  return 0;
}
