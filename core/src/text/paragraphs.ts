import type { Line } from './lines';

/** What parts two paragraphs, in heights of a line: a wider gap, an indented line, another size of letters. */
const GAP = 0.75;
const INDENT = 0.8;
const OTHER_SIZE = 0.15;
/** A line that stops this much short of the one before, in heights of a line, ends its paragraph. */
const SHORT = 4;

const heightOf = ({ frame }: Line): number => frame.y1 - frame.y0;

/**
 * Whether a line goes on with the paragraph of the one before it in reading order. As paragraphs are set (common
 * practice, no source): lines one below the other, evenly, the first one indented or the last one before it short.
 */
export function goesOn(before: Line, line: Line): boolean {
  const height = Math.min(heightOf(before), heightOf(line));
  if (before.angle !== line.angle) return false;
  const [a, b] = [before.frame, line.frame];
  const isBelow = b.y0 > a.y0 && b.y0 - a.y1 <= GAP * height;
  const isUnder = Math.min(a.x1, b.x1) > Math.max(a.x0, b.x0);
  const sizes = [sizeOf(before), sizeOf(line)];
  const isSameSize = Math.abs(sizes[0] - sizes[1]) <= OTHER_SIZE * Math.max(...sizes);
  const isIndented = b.x0 - a.x0 > INDENT * height;
  const wasShort = b.x1 - a.x1 > SHORT * height && b.x0 - a.x0 > -INDENT * height;
  return isBelow && isUnder && isSameSize && !isIndented && !wasShort;
}

const sizeOf = ({ words }: Line): number => Math.max(...words.map(({ size }) => size));

/** The first and the last line, by their numbers, of the paragraph that a line belongs to. */
export function paragraphAround(lines: readonly Line[], line: number): [number, number] {
  let [first, last] = [line, line];
  while (first > 0 && goesOn(lines[first - 1], lines[first])) first--;
  while (last + 1 < lines.length && goesOn(lines[last], lines[last + 1])) last++;
  return [first, last];
}
