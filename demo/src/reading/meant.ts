import { execFileSync } from 'node:child_process';
import { unite, type Box, type Point } from '@stylet/core/geometry';
import { pageText } from '@stylet/core/text';
import type { ReadPage } from './index';

/** What a person means to mark, and the way a pen goes for it (points on the page as it is shown). */
export interface Meant {
  readonly words: readonly PrintedWord[];
  readonly way: readonly Point[];
}

export interface PrintedWord {
  readonly text: string;
  readonly box: Box;
}

type PrintedLine = readonly PrintedWord[];

/** The lines of each block of a page as poppler's pdftotext tells them; words that stand far apart are in lines of their own. */
export type PrintedPage = readonly (readonly PrintedLine[])[];

/** Gap, in heights of words, over which nobody goes on within a cell, and below which two are one word (common practice, no source). */
const CELL_GAP = 1.2;
const WORD_GAP = 0.1;

/** The pages of a file, as `pdftotext -bbox-layout` gives them. */
export function printedPages(path: string): PrintedPage[] {
  const options = { encoding: 'utf8', maxBuffer: 1 << 28 } as const;
  const html = execFileSync('pdftotext', ['-bbox-layout', path, '-'], options);
  const parts = (text: string, element: string): string[] => text.split(`<${element} `).slice(1);
  return parts(html, 'page').map((page) =>
    parts(page, 'block').map((block) => parts(block, 'line').flatMap(linesIn)),
  );
}

function linesIn(line: string): PrintedLine[] {
  const word = /<word xMin="(\S+)" yMin="(\S+)" xMax="(\S+)" yMax="(\S+)">(.*?)<\/word>/g;
  const lines: PrintedWord[][] = [];
  for (const [, x0, y0, x1, y1, text] of line.matchAll(word)) {
    const box = { x0: Number(x0), y0: Number(y0), x1: Number(x1), y1: Number(y1) };
    const last = lines.at(-1);
    const before = last?.at(-1);
    const gap = before ? (box.x0 - before.box.x1) / (box.y1 - box.y0) : Infinity;
    if (last && before && gap < WORD_GAP)
      last[last.length - 1] = { text: before.text + text, box: unite(before.box, box) };
    else if (last && gap < CELL_GAP) last.push({ text, box });
    else lines.push([{ text, box }]);
  }
  return lines;
}

/** How far off a pen is, in points: before the first letter, behind the last one, and beyond the end of a line (18 px). */
const BEFORE = 7;
const BEHIND = 5;
const BEYOND = 13.5;
/** How far it is off the middle of a line, in heights of its words: where it keeps to one line, and else. */
const OFF_ONE = 0.5;
const OFF_SEVERAL = 0.3;

/**
 * Words of one to four lines of one block, and a stroke for them by a hand that is not exact: it begins before the first
 * letter or a little within it, up to between two lines, and ends as inexactly. Undefined where there is nothing to mark.
 */
export function meantOn(page: PrintedPage, random: () => number): Meant | undefined {
  const usable = page.filter((lines) => lines.flat().filter(isWord).length >= 3);
  if (usable.length === 0) return undefined;
  const lines = pick(usable, random);
  const first = Math.floor(random() * lines.length);
  const wanted = Math.floor(random() * 4);
  let last = first;
  while (last - first < wanted && goesOn(lines[last], lines[last + 1])) last++;
  const starts = placesOf(lines[first]);
  if (starts.length === 0) return undefined;
  const a = pick(starts, random);
  const ends = placesOf(lines[last]).filter((place) => last > first || place >= a);
  if (ends.length === 0) return undefined;
  const b = pick(ends, random);
  const words = lines
    .slice(first, last + 1)
    .flatMap((line, i) => line.slice(i === 0 ? a : 0, i === last - first ? b + 1 : undefined));
  const height = lines[first][a].box.y1 - lines[first][a].box.y0;
  const off = (): number => (random() * 2 - 1) * height;
  const [offStart, offEnd] =
    last === first ? [OFF_ONE * off(), undefined] : [OFF_SEVERAL * off(), OFF_SEVERAL * off()];
  const start = { x: beyond(lines[first], a, -1, random), y: middleOf(lines[first][a]) + offStart };
  const tilt = 0.1 * off();
  const end = {
    x: beyond(lines[last], b, 1, random),
    y: offEnd === undefined ? start.y + tilt : middleOf(lines[last][b]) + offEnd,
  };
  return { words, way: straight(start, end) };
}

const isWord = ({ text }: PrintedWord): boolean => /[\p{L}\p{N}]/u.test(text);
const middleOf = ({ box }: PrintedWord): number => (box.y0 + box.y1) / 2;
const placesOf = (line: PrintedLine): number[] => [...line.keys()].filter((i) => isWord(line[i]));

/** Whether a line stands below another, as in a paragraph or a column of a table. */
function goesOn(line: PrintedLine, next: PrintedLine | undefined): boolean {
  if (!next) return false;
  const [a, b] = [line, next].map((words) => words.map(({ box }) => box).reduce(unite));
  const height = a.y1 - a.y0;
  return b.y0 > a.y1 - 0.4 * height && b.y0 < a.y1 + height && b.x0 < a.x1 && b.x1 > a.x0;
}

function beyond(line: PrintedLine, at: number, side: -1 | 1, random: () => number): number {
  const { box } = line[at];
  const beside = line[at + side]?.box;
  const room = beside ? (side < 0 ? box.x0 - beside.x1 : beside.x0 - box.x1) / 2 : Infinity;
  const out = Math.min(side < 0 ? BEFORE : beside ? BEHIND : BEYOND, room);
  const within = Math.min(3, 0.3 * (box.x1 - box.x0));
  const off = random() * (out + within) - within;
  return side < 0 ? box.x0 - off : box.x1 + off;
}

function straight(from: Point, to: Point): Point[] {
  const steps = 24;
  return Array.from({ length: steps + 1 }, (_, i) => ({
    x: from.x + ((to.x - from.x) * i) / steps,
    y: from.y + ((to.y - from.y) * i) / steps,
  }));
}

const pick = <T>(list: readonly T[], random: () => number): T =>
  list[Math.floor(random() * list.length)];

/** What is marked on a page as Stylet reads it, in printed words; signs alone do not count. */
export function markedOf(read: ReadPage, page: PrintedPage, { way }: Meant): PrintedWord[] {
  const text = pageText(read.lines);
  const toPage = (p: Point): Point => unturned(read, p);
  const quads = text.rangeOf(text.highlighted(way.map(toPage)) ?? []).quads;
  const isMarked = ({ box }: PrintedWord): boolean => {
    const p = toPage({ x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 });
    return quads.some((quad) => {
      const xs = [quad[0], quad[2], quad[4], quad[6]];
      const ys = [quad[1], quad[3], quad[5], quad[7]];
      return (
        p.x > Math.min(...xs) &&
        p.x < Math.max(...xs) &&
        p.y > Math.min(...ys) &&
        p.y < Math.max(...ys)
      );
    });
  };
  return page.flat(2).filter((word) => isWord(word) && isMarked(word));
}

/** Whether just the words that were meant are marked. */
export function isExact(marked: readonly PrintedWord[], { words }: Meant): boolean {
  const wanted = words.filter(isWord);
  return (
    wanted.every((word) => marked.includes(word)) &&
    marked.every((word) => wanted.some((other) => other === word || isShadow(other, word)))
  );
}

/** Words are drawn twice to look heavy, or to cast a shadow. */
const isShadow = (a: PrintedWord, b: PrintedWord): boolean =>
  a.text === b.text &&
  Math.min(a.box.x1, b.box.x1) > Math.max(a.box.x0, b.box.x0) &&
  Math.min(a.box.y1, b.box.y1) > Math.max(a.box.y0, b.box.y0);

/** From the page as it is shown to page space. */
function unturned({ width, height, rotation }: ReadPage, p: Point): Point {
  switch (rotation) {
    case 90:
      return { x: p.y, y: height - p.x };
    case 180:
      return { x: width - p.x, y: height - p.y };
    case 270:
      return { x: width - p.y, y: p.x };
    default:
      return p;
  }
}
