import type { Line } from './lines';
import { shareRow } from './order';
import { goesOn } from './paragraphs';
import { joinLines } from './range';

/** Some of the words of a line, as text. */
export interface LineRun {
  readonly line: Line;
  readonly text: string;
}

/** Cells of a table have few words; columns of prose have many (common practice, no source). */
const FEW_WORDS = 4;

/**
 * Words as they are copied: paragraphs joined to one line each, and what stands in rows and columns with tabs
 * between the cells and a new line for each row. `runs` in reading order.
 */
export function copiedText(runs: readonly LineRun[]): string {
  const rows = rowsOf(runs);
  if (isTable(rows)) return rows.map((row) => row.map(({ text }) => text).join('\t')).join('\n');
  const paragraphs: LineRun[][] = [];
  for (const run of runs) {
    const last = paragraphs.at(-1);
    if (last && goesOn(last[last.length - 1].line, run.line)) last.push(run);
    else paragraphs.push([run]);
  }
  return paragraphs.map((lines) => joinLines(lines.map(({ text }) => text))).join('\n');
}

/**
 * What is copied of pages that follow each other, as one text: a sentence that goes on over the end of a page is not
 * broken there, and a word that is divided becomes one.
 */
export function joinPages(texts: readonly string[]): string {
  return texts.reduce((whole, text) => {
    if (whole === '' || text === '') return whole + text;
    const isOpen = /[\p{L}\p{N},;\u00ad\u2010-]$/u.test(whole) && /^\p{Ll}/u.test(text);
    return isOpen ? joinLines([whole, text]) : `${whole}\n${text}`;
  }, '');
}

/** Runs that stand beside each other, from left to right; rows from top to bottom. */
function rowsOf(runs: readonly LineRun[]): LineRun[][] {
  const rows: LineRun[][] = [];
  const sorted = [...runs].sort((a, b) => a.line.frame.y0 - b.line.frame.y0);
  for (const run of sorted) {
    const row = rows.at(-1);
    if (row && isBeside(row[0].line, run.line)) row.push(run);
    else rows.push([run]);
  }
  for (const row of rows) row.sort((a, b) => a.line.frame.x0 - b.line.frame.x0);
  return rows;
}

const isBeside = (a: Line, b: Line): boolean => a.angle === b.angle && shareRow(a.frame, b.frame);

/** Two rows and more, most of them with cells beside each other, that have few words. */
function isTable(rows: readonly (readonly LineRun[])[]): boolean {
  const divided = rows.filter((row) => row.length > 1);
  if (divided.length < 2 || divided.length < rows.length / 2) return false;
  const counts = divided.flatMap((row) => row.map(({ text }) => text.split(' ').length));
  counts.sort((a, b) => a - b);
  return counts[Math.floor(counts.length / 2)] <= FEW_WORDS;
}
