import type { Line } from './lines';

/** Pitches over so many times a line's height are gaps between paragraphs or columns. */
const MOST = 2.6;

/**
 * The distance from line to line of a page's level text, in points: the median over lines that stand
 * one below the other; undefined for pages with fewer than two such lines.
 */
export function linePitch(lines: readonly Line[]): number | undefined {
  const level = lines.filter(({ angle }) => angle === 0);
  const pitches: number[] = [];
  level.forEach((line, i) => {
    const next = level[i + 1];
    if (!next) return;
    const pitch = next.box.y1 - line.box.y1;
    const height = line.box.y1 - line.box.y0;
    const isBelow = next.box.x0 < line.box.x1 && next.box.x1 > line.box.x0;
    if (isBelow && pitch > 0.5 * height && pitch < MOST * height) pitches.push(pitch);
  });
  return pitches.sort((a, b) => a - b)[Math.floor(pitches.length / 2)];
}
