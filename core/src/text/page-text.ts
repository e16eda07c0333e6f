import type { Quad } from '../document/index';
import {
  contains,
  inverse,
  transform,
  transformBox,
  unite,
  type Box,
  type Point,
} from '../geometry/index';
import type { Line } from './lines';
import { Columns } from './columns';
import { copiedText } from './copied';
import { highlighted } from './highlighted';
import { paragraphAround } from './paragraphs';
import { joinLines, lineAt, nearestLine, distanceToBox, type TextRange } from './range';
import { joinWords } from './spacing';
import { uprightFrame, type Word } from './words';

interface PlacedWord {
  readonly word: Word;
  readonly line: Line;
}

/** The words of a page in reading order, by number. */
export class PageText {
  private readonly words: readonly PlacedWord[];
  private readonly starts = new Map<Line, number>();
  private columns: Columns | undefined;
  private numbers: Map<Word, number> | undefined;

  constructor(readonly lines: readonly Line[]) {
    const words: PlacedWord[] = [];
    for (const line of lines) {
      this.starts.set(line, words.length);
      for (const word of line.words) words.push({ word, line });
    }
    this.words = words;
  }

  /** Number of words. */
  get length(): number {
    return this.words.length;
  }

  /** The word at a point, or undefined when the point is not on text. */
  wordAt(p: Point): number | undefined {
    const line = lineAt(this.lines, p);
    return line && this.nearestIn(line, p);
  }

  /** The word nearest to a point; undefined for a page without text. */
  nearestWord(p: Point): number | undefined {
    if (this.lines.length === 0) return undefined;
    return this.nearestIn(lineAt(this.lines, p) ?? nearestLine(this.lines, p), p);
  }

  /** The words that the way of a highlighter (page space) means; undefined when it is not on text. See `highlighted`. */
  highlighted(way: readonly Point[]): number[] | undefined {
    this.columns ??= new Columns(this.lines);
    const words = highlighted(this.columns, way);
    return words?.map((word) => this.numberOf(word)).sort((a, b) => a - b);
  }

  /** The words that quads (page space) cover, in order: those whose middle lies in one. */
  covered(quads: readonly Quad[]): number[] {
    const found: number[] = [];
    this.words.forEach(({ word: { box } }, i) => {
      const middle = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
      if (quads.some((quad) => isWithin(quad, middle))) found.push(i);
    });
    return found;
  }

  /** Words as a mark on text needs them; given in order. */
  rangeOf(words: readonly number[]): TextRange {
    const quads: Quad[] = [];
    const texts: string[] = [];
    for (const [line, run] of this.runsOf(words)) {
      quads.push(quadOf(line, run.map(({ word }) => word.box).reduce(unite)));
      texts.push(textOf(run));
    }
    return { quads, contents: joinLines(texts) };
  }

  /** Words as they are copied; given in order. See `copiedText`. */
  copied(words: readonly number[]): string {
    return copiedText([...this.runsOf(words)].map(([line, run]) => ({ line, text: textOf(run) })));
  }

  /** The first and the last word of the line, or of the paragraph, that a word belongs to. */
  around(word: number, what: 'line' | 'paragraph'): [number, number] {
    const at = this.lines.indexOf(this.words[word].line);
    const [first, last] = what === 'line' ? [at, at] : paragraphAround(this.lines, at);
    const end = this.lines[last];
    return [this.starts.get(this.lines[first])!, this.starts.get(end)! + end.words.length - 1];
  }

  private numberOf(word: Word): number {
    this.numbers ??= new Map(this.words.map((placed, i) => [placed.word, i]));
    return this.numbers.get(word)!;
  }

  private runsOf(words: readonly number[]): Map<Line, PlacedWord[]> {
    const runs = new Map<Line, PlacedWord[]>();
    for (const i of words) {
      const placed = this.words[i];
      const run = runs.get(placed.line);
      if (run) run.push(placed);
      else runs.set(placed.line, [placed]);
    }
    return runs;
  }

  private nearestIn(line: Line, p: Point): number {
    let nearest = Infinity;
    let found = 0;
    line.words.forEach(({ box }, i) => {
      const distance = distanceToBox(box, p);
      if (distance >= nearest) return;
      nearest = distance;
      found = i;
    });
    return this.starts.get(line)! + found;
  }
}

const textOf = (run: readonly PlacedWord[]): string => joinWords(run.map(({ word }) => word.text));

const texts = new WeakMap<readonly Line[], PageText>();

/** The text of lines, worked out once. */
export function pageText(lines: readonly Line[]): PageText {
  let text = texts.get(lines);
  if (!text) texts.set(lines, (text = new PageText(lines)));
  return text;
}

/** The numbers from one to another, either way round. */
export function between(a: number, b: number): number[] {
  const from = Math.min(a, b);
  return Array.from({ length: Math.abs(b - a) + 1 }, (_, i) => from + i);
}

/** Whether a point lies in a quadrilateral, whose sides may run either way. */
function isWithin([ax, ay, bx, by, cx, cy, dx, dy]: Quad, p: Point): boolean {
  const corners = [ax, ay, bx, by, dx, dy, cx, cy];
  const box = {
    x0: Math.min(ax, bx, cx, dx),
    y0: Math.min(ay, by, cy, dy),
    x1: Math.max(ax, bx, cx, dx),
    y1: Math.max(ay, by, cy, dy),
  };
  if (!contains(box, p)) return false;
  const sides = [0, 2, 4, 6].map((i) => {
    const [x, y] = [corners[i], corners[i + 1]];
    const [nx, ny] = [corners[(i + 2) % 8], corners[(i + 3) % 8]];
    return (nx - x) * (p.y - y) - (ny - y) * (p.x - x);
  });
  return sides.every((side) => side >= 0) || sides.every((side) => side <= 0);
}

/** As wide as the words and as high as their line. */
function quadOf(line: Line, words: Box): Quad {
  const toFrame = uprightFrame(line.angle);
  const { x0, x1 } = transformBox(toFrame, words);
  const { y0, y1 } = line.frame;
  const back = inverse(toFrame);
  const corners = [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x0, y: y1 },
    { x: x1, y: y1 },
  ].map((p) => transform(back, p));
  return corners.flatMap((p) => [p.x, p.y]) as Quad;
}
