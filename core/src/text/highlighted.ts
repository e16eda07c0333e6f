import { contains, transform, type Point } from '../geometry/index';
import type { Columns } from './columns';
import type { Line } from './lines';
import { uprightFrame, type Word } from './words';

/** How far from the middle of a line, in its heights, a pen still means it. */
const OFF_LINE = 1.1;
/** How far before the first letter of a line, or behind its last, in its heights, a pen may come down that means it. */
const OFF_END = 2.5;
/** A way that rises or falls by less than this, in heights of the line, keeps to one line; if it goes back meanwhile, less. */
const LEVEL = 0.6;
const LEVEL_BACK = 0.3;
/** How far, in heights of a line, the middles of lines beside each other may differ. */
const BESIDE = 0.25;
/** How much of a word at an end the pen must have covered: a share of it, but no more than so many sizes of its letters. */
const COVERED = 0.35;
const COVERED_SIZES = 0.35;

/**
 * The words that the way of a highlighter (page space) means, in reading order: those from where it came down to where
 * it was lifted, in the column it began in. Undefined when it is not on text. The rules are of our own, measured by
 * `./stylet bench marking`.
 */
export function highlighted(columns: Columns, way: readonly Point[]): Word[] | undefined {
  const first = lineMeant(columns.lines, way);
  if (!first) return undefined;
  const toFrame = uprightFrame(first.angle);
  const [from, to] = [transform(toFrame, way[0]), transform(toFrame, way[way.length - 1])];
  const column = columns.around(first);
  const last = isLevel(first, from, to) ? first : nearest(column, to);
  const [a, b] = [column.indexOf(first), column.indexOf(last)];
  if (a === b) return within(first, Math.min(from.x, to.x), Math.max(from.x, to.x));
  const [above, below] = a < b ? [from, to] : [to, from];
  const between = column.slice(Math.min(a, b), Math.max(a, b) + 1);
  return between.flatMap((line, i) =>
    within(line, i === 0 ? above.x : -Infinity, i === between.length - 1 ? below.x : Infinity),
  );
}

/** The line on which a pen came down. Beside it, it must have gone on over text. */
function lineMeant(lines: readonly Line[], way: readonly Point[]): Line | undefined {
  let isOnText: boolean | undefined;
  const goesOnText = (): boolean =>
    (isOnText ??= way.some((p) => lines.some(({ box }) => contains(box, p))));
  const near = lines.filter((line) => isNear(line, way[0], goesOnText));
  if (near.length < 2) return near[0];
  const toFrame = uprightFrame(near[0].angle);
  const [from, to] = [transform(toFrame, way[0]), transform(toFrame, way[way.length - 1])];
  const line = nearest(near, from);
  if (!isLevel(line, from, to)) return line;
  // Between two lines the whole of a level way tells more than where it began.
  const y = way.reduce((sum, p) => sum + transform(toFrame, p).y, 0) / way.length;
  return nearest(near, { x: from.x, y });
}

function isNear({ frame, angle }: Line, at: Point, goesOnText: () => boolean): boolean {
  const { x, y } = transform(uprightFrame(angle), at);
  const height = frame.y1 - frame.y0;
  if (Math.abs(y - (frame.y0 + frame.y1) / 2) > OFF_LINE * height) return false;
  const off = Math.max(frame.x0 - x, x - frame.x1);
  if (off <= 0) return true;
  return off <= OFF_END * height && goesOnText();
}

function isLevel({ frame }: Line, from: Point, to: Point): boolean {
  const height = frame.y1 - frame.y0;
  const goesBack = from.x - to.x > height;
  return Math.abs(to.y - from.y) < (goesBack ? LEVEL_BACK : LEVEL) * height;
}

/** The line nearest to a point (in their frame): that whose middle is, and of those beside each other the nearer one. */
function nearest(lines: readonly Line[], { x, y }: Point): Line {
  const above = ({ frame }: Line): number => Math.abs(y - (frame.y0 + frame.y1) / 2);
  const off = ({ frame }: Line): number => Math.max(frame.x0 - x, 0, x - frame.x1);
  const first = lines.reduce((best, line) => (above(line) < above(best) ? line : best));
  const reach = above(first) + BESIDE * (first.frame.y1 - first.frame.y0);
  return lines
    .filter((line) => above(line) <= reach)
    .reduce((best, line) => (off(line) < off(best) ? line : best), first);
}

/** The words of a line that are covered from one place to another (x in its frame): one at least. */
function within({ words, angle }: Line, from: number, to: number): Word[] {
  const toFrame = uprightFrame(angle);
  const ends = words.map(({ box, size }) => {
    const a = transform(toFrame, { x: box.x0, y: box.y0 }).x;
    const b = transform(toFrame, { x: box.x1, y: box.y1 }).x;
    const [x0, x1] = [Math.min(a, b), Math.max(a, b)];
    return { x0, x1, enough: Math.min(COVERED * (x1 - x0), COVERED_SIZES * size) };
  });
  const covered = words.filter((_, i) => {
    const { x0, x1, enough } = ends[i];
    return Math.min(x1, to) - Math.max(x0, from) >= enough;
  });
  if (covered.length > 0) return covered;
  const middle = from === -Infinity ? to : to === Infinity ? from : (from + to) / 2;
  const off = ({ x0, x1 }: { x0: number; x1: number }): number =>
    Math.max(x0 - middle, 0, middle - x1);
  const best = ends.reduce((found, end, i) => (off(end) < off(ends[found]) ? i : found), 0);
  return [words[best]];
}
