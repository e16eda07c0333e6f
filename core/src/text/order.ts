import { unite, type Box } from '../geometry/index';

interface Framed {
  readonly frame: Box;
}

/** A gutter must be at least this wide, in line heights. */
const GUTTER = 0.6;

/**
 * Sorts lines into reading order by recursive cuts: down a gutter where one runs through the whole
 * region, else across, so that what remains can be cut down a gutter. After the XY-cut of G. Nagy
 * and S. Seth, "Hierarchical representation of optically scanned documents" (ICPR 1984).
 */
export function readingOrder<T extends Framed>(lines: readonly T[]): T[] {
  if (lines.length < 2) return [...lines];
  const parts = cutDown(lines) ?? bestCutAcross(lines);
  return parts ? parts.flatMap((part) => readingOrder(part)) : byTop(lines);
}

/** Two sides of the widest gutter, each of at least two lines; undefined when there is none. */
function cutDown<T extends Framed>(lines: readonly T[]): [T[], T[]] | undefined {
  const sorted = [...lines].sort((a, b) => a.frame.x0 - b.frame.x0);
  const height = median(lines.map((line) => line.frame.y1 - line.frame.y0));
  let reach = sorted[0].frame.x1;
  let widest = GUTTER * height;
  let cut = 0;
  for (let i = 1; i < sorted.length; i++) {
    const gap = sorted[i].frame.x0 - reach;
    if (gap > widest && i >= 2 && sorted.length - i >= 2) {
      widest = gap;
      cut = i;
    }
    reach = Math.max(reach, sorted[i].frame.x1);
  }
  return cut > 0 ? [sorted.slice(0, cut), sorted.slice(cut)] : undefined;
}

/** The cut across after which the most lines stand in parts that a gutter divides. */
function bestCutAcross<T extends Framed>(lines: readonly T[]): [T[], T[]] | undefined {
  const sorted = [...lines].sort((a, b) => a.frame.y0 - b.frame.y0);
  let best: [T[], T[]] | undefined;
  let most = 0;
  let reach = sorted[0].frame.y1;
  for (let i = 1; i < sorted.length; i++) {
    const slack = 0.25 * (sorted[i].frame.y1 - sorted[i].frame.y0);
    if (sorted[i].frame.y0 > reach - slack) {
      const above = sorted.slice(0, i);
      const below = sorted.slice(i);
      const divided = (cutDown(above) ? above.length : 0) + (cutDown(below) ? below.length : 0);
      if (divided > most) {
        most = divided;
        best = [above, below];
      }
    }
    reach = Math.max(reach, sorted[i].frame.y1);
  }
  return best;
}

/**
 * What stands beside the lines of a region (from top to bottom): of each line that is in a band of neighbouring lines
 * which a gutter divides, how far the other sides of such gutters reach. Lines in no band are left out.
 */
export function beside<T extends Framed>(lines: readonly T[]): Map<T, Box[]> {
  const found = new Map<T, Box[]>();
  collect(lines, found);
  return found;
}

function collect<T extends Framed>(lines: readonly T[], found: Map<T, Box[]>): void {
  const band = widestBand(lines);
  if (!band) return;
  const [from, to] = band;
  const sides = cutDown(lines.slice(from, to))!.map(byTop);
  const reach = sides.map((side) => side.map(({ frame }) => frame).reduce(unite));
  sides.forEach((side, i) => {
    for (const line of side) found.set(line, [...(found.get(line) ?? []), reach[1 - i]]);
  });
  for (const part of [lines.slice(0, from), ...sides, lines.slice(to)]) collect(part, found);
}

/** The most neighbouring lines that a gutter divides: the first and the one after the last. */
function widestBand<T extends Framed>(lines: readonly T[]): [number, number] | undefined {
  let best: [number, number] | undefined;
  for (let from = 0; from < lines.length; from++) {
    let gaps: (readonly [number, number])[] = [[-Infinity, Infinity]];
    for (let to = from; to < lines.length && lines.length - from > sizeOf(best); to++) {
      const { frame } = lines[to];
      const least = GUTTER * (frame.y1 - frame.y0);
      gaps = gaps.flatMap((gap) => around(gap, frame)).filter(([a, b]) => b - a > least);
      if (gaps.length < 3 && to > from + 3) break;
      if (to + 1 - from <= sizeOf(best)) continue;
      const sides = cutDown(lines.slice(from, to + 1));
      if (sides && areBeside(sides)) best = [from, to + 1];
    }
  }
  return best;
}

const sizeOf = (band: readonly [number, number] | undefined): number =>
  band ? band[1] - band[0] : 0;

/** What a line leaves of a gap. */
function around(gap: readonly [number, number], { x0, x1 }: Box): (readonly [number, number])[] {
  if (x1 <= gap[0] || x0 >= gap[1]) return [gap];
  return [
    [gap[0], x0],
    [x1, gap[1]],
  ];
}

/** Whether the lines of two sides stand beside each other, not one side below the other. */
function areBeside<T extends Framed>(sides: readonly (readonly T[])[]): boolean {
  const [a, b] = sides.map((lines) => lines.map(({ frame }) => frame).reduce(unite));
  return shareRow(a, b);
}

/** Whether two boxes are beside each other: more than half as high as the lower one is what they share. */
export function shareRow(a: Box, b: Box): boolean {
  const shared = Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0);
  return shared > 0.5 * Math.min(a.y1 - a.y0, b.y1 - b.y0);
}

/** From top to bottom. */
export const byTop = <T extends Framed>(lines: readonly T[]): T[] =>
  [...lines].sort((a, b) => a.frame.y0 - b.frame.y0 || a.frame.x0 - b.frame.x0);

function median(values: number[]): number {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)];
}
