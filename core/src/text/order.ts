import type { Box } from '../geometry/index';

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
  const columns = cutDown(lines);
  if (columns) return columns.flatMap((column) => readingOrder(column));
  const across = bestCutAcross(lines);
  if (across) return across.flatMap((part) => readingOrder(part));
  return [...lines].sort((a, b) => a.frame.y0 - b.frame.y0 || a.frame.x0 - b.frame.x0);
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

function median(values: number[]): number {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)];
}
