import { inverse, transformBox, unite, type Box } from '../geometry/index';
import { readingOrder } from './order';
import type { TextAngle } from './glyphs';
import { uprightFrame, type Word } from './words';

/** A line of one column. `frame` is its box in the upright frame of its angle. */
export interface Line {
  readonly words: readonly Word[];
  readonly box: Box;
  readonly frame: Box;
  readonly angle: TextAngle;
}

/** Gap, in font sizes, over which a line does not run: the gutter between columns. */
const GUTTER = 1.3;
/** Gap, in font sizes, that may lie between the mark of an entry of a list and its text. */
const LABEL_GAP = 4;
/** What marks an entry of a list: a sign, or a number or letter with a stop or brackets (common practice, no source). */
const LABEL = /^(?:[•‣◦▪■●○▶►⁃*·§–—-]|\(?[\p{L}\p{N}]{1,3}[.)]|\[\p{N}{1,3}\])$/u;
/** The lines of a page in reading order, columns respected. */
export function linesOf(words: readonly Word[]): Line[] {
  const angles = new Map<TextAngle, Word[]>();
  for (const word of words) {
    const group = angles.get(word.angle);
    if (group) group.push(word);
    else angles.set(word.angle, [word]);
  }
  return [...angles.entries()]
    .sort((a, b) => b[1].length - a[1].length)
    .flatMap(([angle, group]) => readingOrder(linesAt(angle, group)));
}

interface Framed {
  readonly word: Word;
  readonly box: Box;
}

function linesAt(angle: TextAngle, words: readonly Word[]): Line[] {
  const frame = uprightFrame(angle);
  const framed = words
    .map((word) => ({ word, box: angle === 0 ? word.box : transformBox(frame, word.box) }))
    .sort((a, b) => middle(a.box) - middle(b.box));
  const rows: Framed[][] = [];
  for (const item of framed) {
    // The nearest rows are the last ones: words come from top to bottom.
    const row = rows
      .slice(-4)
      .reverse()
      .find((candidate) => sameRow(candidate[0].box, item.box));
    if (row) row.push(item);
    else rows.push([item]);
  }
  return rows.flatMap((row) => splitAtGutters(row).map((items) => lineFrom(items, angle)));
}

const middle = (box: Box): number => (box.y0 + box.y1) / 2;

function sameRow(a: Box, b: Box): boolean {
  const shared = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
  return shared > 0.55 * Math.min(a.y1 - a.y0, b.y1 - b.y0);
}

function splitAtGutters(row: readonly Framed[]): Framed[][] {
  const sorted = [...row].sort((a, b) => a.box.x0 - b.box.x0);
  const parts: Framed[][] = [];
  for (const item of sorted) {
    const part = parts.at(-1);
    const before = part?.at(-1);
    const gap = before
      ? (item.box.x0 - before.box.x1) / Math.max(before.word.size, item.word.size)
      : 0;
    const isLabel = part?.length === 1 && LABEL.test(part[0].word.text);
    if (part && gap <= (isLabel ? LABEL_GAP : GUTTER)) part.push(item);
    else parts.push([item]);
  }
  return parts;
}

function lineFrom(items: readonly Framed[], angle: TextAngle): Line {
  const frame = items.map((item) => item.box).reduce(unite);
  return {
    words: items.map((item) => item.word),
    frame,
    box: transformBox(inverse(uprightFrame(angle)), frame),
    angle,
  };
}
