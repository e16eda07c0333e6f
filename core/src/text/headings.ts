import { identity, transformBox, unite, type Box, type Matrix } from '../geometry/index';
import type { Line } from './lines';
import { joinWords } from './spacing';

/** A line as far as it matters for telling headings: its look, its words, its box on the page as shown. */
export interface LookedLine {
  readonly text: string;
  readonly box: Box;
  /** Font size of most of it, in points. */
  readonly size: number;
  readonly bold: boolean;
}

/** A page's lines in reading order; width and height as shown, in points. */
export interface LookedPage {
  readonly width: number;
  readonly height: number;
  readonly lines: readonly LookedLine[];
}

/** A heading that was found: what it says, how deep it is, from 0, and where it stands on the page as shown. */
export interface Heading {
  readonly title: string;
  readonly depth: number;
  readonly pageIndex: number;
  readonly box: Box;
}

interface Candidate extends LookedLine {
  readonly pageIndex: number;
  readonly number: Numbering | undefined;
}

interface Numbering {
  /** From 0 for a chapter; a part is above those. */
  readonly depth: number;
  /** Whether the heading's words are on the next line. */
  readonly isAlone: boolean;
}

/** How a line looks; `toShown` maps page space to the page as it is shown, in points. */
export function lookOf({ words, box }: Line, toShown: Matrix = identity): LookedLine {
  const letters = words.reduce((sum, { text }) => sum + text.length, 0);
  const inBold = words.reduce((sum, { text, bold }) => sum + (bold ? text.length : 0), 0);
  return {
    text: joinWords(words.map(({ text }) => text)),
    box: transformBox(toShown, box),
    size: round(mostOf(words.map(({ size, text }) => [size, text.length])) ?? 0),
    bold: inBold > 0.7 * letters,
  };
}

/** Headings are at most so long, in characters. */
const LONGEST = 140;
/** Larger than the text by so much, as a factor, a line stands out. */
const LARGER = 1.12;
/** Lines that stand at the top or bottom of so many pages alike are running heads. */
const REPEATS = 3;
/** A page with so many lines of leaders to page numbers is one of contents. */
const CONTENTS = 5;
const LEADERS = /(\. ?){4,}/;

/**
 * The headings of a document by type size, weight and numbering; of slides (wide pages), their titles. After
 * what H. Déjean and J.-L. Meunier, "On tables of contents and how to recognize them" (IJDAR 2009), and common
 * practice use to tell headings: they differ from the text in look, they are short, they are not repeated, and
 * what is alike is equally deep.
 */
export function headingsIn(pages: readonly LookedPage[]): Heading[] {
  const wide = pages.filter(({ width, height }) => width > height).length;
  return wide > pages.length / 2 ? slideTitles(pages) : nested(candidatesIn(pages));
}

/** The look of most of the text. */
type Body = Pick<LookedLine, 'size' | 'bold'>;

function bodyOf(pages: readonly LookedPage[]): Body {
  const lines = pages.flatMap((page) => page.lines);
  const size = mostOf(lines.map((line) => [line.size, line.text.length])) ?? 0;
  const ofSize = lines.filter((line) => line.size === size);
  const bold = ofSize.filter((line) => line.bold).length > ofSize.length / 2;
  return { size, bold };
}

function candidatesIn(pages: readonly LookedPage[]): Candidate[] {
  const body = bodyOf(pages);
  const isRunning = runningHeads(pages);
  const found: Candidate[] = [];
  pages.forEach(({ lines }, pageIndex) => {
    if (isContents(lines, body)) return;
    let last: { candidate: Candidate; at: number } | undefined;
    lines.forEach((line, at) => {
      if (!standsOut(line, body) || isRunning(line)) return;
      const number = numberingOf(line.text);
      const before = last?.at === at - 1 ? last.candidate : undefined;
      const goesOn = before && (!number || before.number?.isAlone);
      const joined = goesOn ? joinedWith(before, line) : undefined;
      if (joined) found.pop();
      const candidate = joined ?? { ...line, pageIndex, number };
      found.push(candidate);
      last = { candidate, at };
    });
  });
  return found.filter(({ text, number }) => isTitle(text, number !== undefined));
}

function standsOut(line: LookedLine, body: Body): boolean {
  if (line.size >= body.size * LARGER) return true;
  if (line.bold && line.size >= body.size * 0.85 && numberingOf(line.text)) return true;
  return line.bold && !body.bold && line.size >= body.size * 0.98;
}

/** A heading of several lines is one: same look, one below the other. */
function joinedWith(before: Candidate, line: LookedLine): Candidate | undefined {
  const gap = line.box.y0 - before.box.y1;
  const isAlike = before.size === line.size && before.bold === line.bold;
  if (!isAlike && !before.number?.isAlone) return undefined;
  const most = (before.number?.isAlone ? 2 : 0.6) * line.size;
  if (gap < -0.5 * line.size || gap > most) return undefined;
  const number = before.number && { ...before.number, isAlone: false };
  const text = `${before.text} ${line.text}`;
  return { ...before, ...line, number, text, box: unite(before.box, line.box) };
}

/** Words, not a formula, a rule, a page number or, unless it is numbered, a sentence. */
function isTitle(text: string, isNumbered: boolean): boolean {
  const letters = text.match(/\p{L}/gu)?.length ?? 0;
  if (text.length > LONGEST || letters < 2 || letters < text.length * 0.45) return false;
  if (/[.,;:]$/.test(text) && !isNumbered && !/\.\.\.$/.test(text)) return false;
  return !LEADERS.test(text);
}

/** Whether a page lists headings with their pages. */
function isContents(lines: readonly LookedLine[], body: Body): boolean {
  const led = lines.filter(({ text }) => LEADERS.test(text)).length;
  const numbers = lines.filter(({ text }) => /^\d{1,4}$/.test(text));
  const listed = lines.filter(
    (line) =>
      standsOut(line, body) && numbers.some(({ box }) => Math.abs(box.y1 - line.box.y1) < 2),
  ).length;
  return led >= CONTENTS || listed >= CONTENTS;
}

/** Tells lines that stand at the same height on several pages and say the same but for numbers. */
function runningHeads(pages: readonly LookedPage[]): (line: LookedLine) => boolean {
  const keyOf = ({ text, box, size }: LookedLine): string =>
    // A number alone in its line may be a chapter's: unlike those of pages it is told apart by what it says.
    `${Math.round(box.y0 / 4)} ${size} ${numberingOf(text)?.isAlone ? text : text.replace(/\d+|\b[ivxlc]+\b/gi, '#')}`;
  const counts = new Map<string, number>();
  for (const { lines } of pages)
    for (const line of lines) counts.set(keyOf(line), (counts.get(keyOf(line)) ?? 0) + 1);
  return (line) => (counts.get(keyOf(line)) ?? 0) >= REPEATS;
}

/** “2”, “2.1”, “Chapter 2”, “Appendix A”, “A.1”: how deep they say that a heading is. */
function numberingOf(text: string): Numbering | undefined {
  const [called, word] = /^(chapter|appendix|part)\s+([\divxlc]+|[A-Z])\b[.:]?/i.exec(text) ?? [];
  if (called !== undefined)
    return { depth: /part/i.test(word) ? -1 : 0, isAlone: called.length === text.length };
  const [, number] = /^((?:\d{1,3}|[A-Z])(?:\.\d{1,3})*)\.?\s+\p{L}/u.exec(text) ?? [];
  if (number === undefined || (/^[A-Z]$/.test(number) && !/^[A-Z]\.?\s+\p{Lu}/u.test(text)))
    return undefined;
  return { depth: number.split('.').length - 1, isAlone: false };
}

/** Headings alike are equally deep: as their numbers say, or as their size ranks. */
function nested(candidates: readonly Candidate[]): Heading[] {
  const looks = depthsOfLooks(candidates);
  const depths = candidates.map(
    ({ number, ...look }) => number?.depth ?? looks.get(lookKey(look)) ?? 0,
  );
  const least = Math.min(...depths);
  let deepest = -1;
  return candidates.map(({ text, pageIndex, box }, i) => {
    // Nothing is deeper than one level below what comes before it.
    deepest = Math.min(depths[i] - least, deepest + 1);
    return { title: text, depth: deepest, pageIndex, box };
  });
}

const lookKey = ({ size, bold }: Pick<LookedLine, 'size' | 'bold'>): string => `${size} ${bold}`;

function depthsOfLooks(candidates: readonly Candidate[]): Map<string, number> {
  const looks = new Map<string, Candidate[]>();
  for (const candidate of candidates) {
    // A title page has looks of its own.
    if (candidate.pageIndex === 0 && candidates.at(-1)!.pageIndex > 0) continue;
    const key = lookKey(candidate);
    looks.set(key, [...(looks.get(key) ?? []), candidate]);
  }
  const ranked = [...looks.entries()].sort(
    ([, [a]], [, [b]]) => b.size - a.size || Number(b.bold) - Number(a.bold),
  );
  const depths = new Map<string, number>();
  let next = 0;
  for (const [key, alike] of ranked) {
    const numbers = alike.flatMap(({ number }) => (number ? [[number.depth, 1]] : []));
    const said = numbers.length >= alike.length / 2 ? mostOf(numbers) : undefined;
    const depth = said ?? next;
    depths.set(key, depth);
    // A look that is hardly used makes no level of its own.
    if (said !== undefined || alike.length > candidates.length / 100) next = depth + 1;
  }
  return depths;
}

/** The largest line in the upper part of each slide; one that goes on over several is one. */
function slideTitles(pages: readonly LookedPage[]): Heading[] {
  const titles: Heading[] = [];
  const isHead = slideHeads(pages);
  pages.forEach(({ height, lines }, pageIndex) => {
    const wordy = upperOf(height, lines);
    const named = wordy.filter((line) => !isHead(line));
    const upper = named.length > 0 ? named : wordy;
    const largest = Math.max(...upper.map(({ size }) => size));
    const first = upper.find(({ size }) => size === largest);
    if (!first) return;
    const parts = upper
      .filter((line) => line.size === largest && line.box.y0 - first.box.y0 < 2.5 * largest)
      .map(({ text }) => text);
    const title = joinWords(parts).slice(0, LONGEST);
    if (titles.at(-1)?.title === title) return;
    titles.push({ title, depth: 0, pageIndex, box: first.box });
  });
  return titles;
}

/** The lines of a slide among which its title is. */
const upperOf = (height: number, lines: readonly LookedLine[]): LookedLine[] =>
  lines.filter((line) => line.box.y1 < height * 0.6 && isWordy(line.text));

/** A title that stands under a running head is at least so large, as a share of that. */
const TITLE_SIZE = 0.8;

/**
 * Which lines are the frame of slides: those at the very top of most of them, and those that come again above what looks
 * like a title and does not. A title may come again too, on slides that go on.
 */
function slideHeads(pages: readonly LookedPage[]): (line: LookedLine) => boolean {
  const isRepeated = runningHeads(pages);
  const found = new Map<string, { above: number; all: number }>();
  const keyOf = ({ text, box }: LookedLine): string => `${Math.round(box.y0 / 4)} ${text}`;
  for (const { height, lines } of pages) {
    const upper = upperOf(height, lines);
    for (const line of upper.filter(isRepeated)) {
      const counts = found.get(keyOf(line)) ?? { above: 0, all: 0 };
      counts.all++;
      if (upper.some((other) => isTitleUnder(line, other, upper))) counts.above++;
      found.set(keyOf(line), counts);
    }
  }
  function isTitleUnder(head: LookedLine, line: LookedLine, upper: readonly LookedLine[]): boolean {
    if (line.box.y0 <= head.box.y0 || line.size < TITLE_SIZE * head.size || isRepeated(line))
      return false;
    return upper.filter(({ size }) => size === line.size).length <= 2;
  }
  return (line) => {
    if (!isRepeated(line)) return false;
    const { above, all } = found.get(keyOf(line)) ?? { above: 0, all: 0 };
    return line.box.y1 < pages[0].height * 0.08 || above > 0.7 * all;
  };
}

const isWordy = (text: string): boolean => /\p{L}{2}/u.test(text);

const round = (size: number): number => Math.round(size * 4) / 4;

/** The value with the greatest weight in all. */
function mostOf(weighed: readonly (readonly [number, number] | number[])[]): number | undefined {
  const sums = new Map<number, number>();
  for (const [value, weight] of weighed) {
    const key = round(value);
    sums.set(key, (sums.get(key) ?? 0) + weight);
  }
  return [...sums.entries()].reduce<[number, number] | undefined>(
    (most, entry) => (most === undefined || entry[1] > most[1] ? entry : most),
    undefined,
  )?.[0];
}
