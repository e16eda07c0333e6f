import { transformBox, unite } from '../geometry/index';
import type { Line } from './lines';
import { uprightFrame, type Word } from './words';

/** A gap, in font sizes, that may part cells if it is also so many times as wide as is usual between words. */
const CELL_GAP = 0.8;
const UNUSUAL = 2;
/** The widest gap, in font sizes, that is one between words. */
const WORD_GAP = 1.3;
/** Lines with more gaps than this tell what is usual in them: one that fills its column may be spaced out. */
const FEW_GAPS = 3;
/** What numbers a heading. */
const NUMBER = /^(?:\p{L}|\p{N}+)(?:\.\p{N}+)*\.?$/u;

/** Lines as one marks them: cells that stand close beside each other in one line are lines of their own. */
export function cellsOf(lines: readonly Line[]): Line[] {
  const gaps = lines.map(gapsIn);
  const usual = median(gaps.flat().filter((gap) => gap > 0 && gap < WORD_GAP));
  return lines.flatMap((line, i) => split(line, gaps[i], usual));
}

function split(line: Line, gaps: readonly number[], usualOnPage: number): Line[] {
  const usual = gaps.length > FEW_GAPS ? median(gaps) : usualOnPage;
  const widest = Math.max(CELL_GAP, UNUSUAL * usual);
  const parts: Word[][] = [[]];
  line.words.forEach((word, i) => {
    const isNumbered = i === 1 && NUMBER.test(line.words[0].text);
    if (i > 0 && gaps[i - 1] > widest && !isNumbered) parts.push([]);
    parts[parts.length - 1].push(word);
  });
  return parts.length === 1 ? [line] : parts.map((words) => lineWith(line, words));
}

function lineWith({ angle }: Line, words: readonly Word[]): Line {
  const box = words.map((word) => word.box).reduce(unite);
  return { words, box, frame: transformBox(uprightFrame(angle), box), angle };
}

/** The gaps between the words of a line, in font sizes. */
function gapsIn({ words, angle }: Line): number[] {
  const frame = uprightFrame(angle);
  const boxes = words.map(({ box }) => transformBox(frame, box));
  return words
    .slice(1)
    .map(({ size }, i) => (boxes[i + 1].x0 - boxes[i].x1) / Math.max(size, words[i].size));
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
