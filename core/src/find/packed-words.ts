import { base64 } from '@scure/base';
import { VarintReader, VarintWriter } from '../bytes/index';
import { BOX, type PageWords } from './page-words';

const VERSION = 1;
/** Steps a point: boxes are kept to 1/100 pt, as ink is. */
const STEPS = 100;
const MOST_WORDS = 1_000_000;

/**
 * Places and boxes of a page's words as bytes; the text itself is kept beside them. Each word says how it differs
 * from the one before: where it starts in the text, its line, how far right of it it begins, how wide it is, and its
 * top and bottom edges, which seldom change within a line.
 */
export function packWords({ starts, boxes }: Omit<PageWords, 'text'>): Uint8Array {
  const writer = new VarintWriter();
  writer.byte(VERSION);
  writer.unsigned(starts.length);
  const edge = (at: number): number => Math.round(boxes[at] * STEPS);
  let [start, line, right, top, bottom] = [0, 0, 0, 0, 0];
  for (let i = 0; i < starts.length; i++) {
    const at = BOX * i;
    const left = edge(at);
    writer.unsigned(starts[i] - start);
    writer.unsigned(boxes[at + 4] - line);
    writer.signed(left - right);
    start = starts[i];
    line = boxes[at + 4];
    right = edge(at + 2);
    writer.signed(right - left);
    writer.signed(edge(at + 1) - top);
    writer.signed(edge(at + 3) - bottom);
    top = edge(at + 1);
    bottom = edge(at + 3);
  }
  return writer.bytes();
}

/** The inverse of `packWords`. Throws an Error for anything else. */
export function unpackWords(bytes: Uint8Array): Omit<PageWords, 'text'> {
  const reader = new VarintReader(bytes, (detail) => new Error(`the words of a page: ${detail}`));
  const version = reader.byte();
  if (version !== VERSION) throw new Error(`unknown version ${version} of the words of a page`);
  const count = reader.unsigned();
  if (count > MOST_WORDS || count > bytes.length)
    throw new Error(`${count} words cannot be in ${bytes.length} bytes`);
  const starts = new Int32Array(count);
  const boxes = new Float32Array(BOX * count);
  let [start, line, right, top, bottom] = [0, 0, 0, 0, 0];
  for (let i = 0; i < count; i++) {
    start += reader.unsigned();
    line += reader.unsigned();
    const left = right + reader.signed();
    right = left + reader.signed();
    top += reader.signed();
    bottom += reader.signed();
    starts[i] = start;
    const at = BOX * i;
    boxes[at] = left / STEPS;
    boxes[at + 1] = top / STEPS;
    boxes[at + 2] = right / STEPS;
    boxes[at + 3] = bottom / STEPS;
    boxes[at + 4] = line;
  }
  return { starts, boxes };
}

/** Packed words in base64 (RFC 4648, 4), as JSON carries them. */
export const wordsToBase64 = (packed: Uint8Array): string => base64.encode(packed);

/** The inverse of `packWords` and `wordsToBase64`. Throws an Error for anything else. */
export const wordsFromBase64 = (text: string): Omit<PageWords, 'text'> =>
  unpackWords(base64.decode(text));
