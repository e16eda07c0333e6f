import type { ShapedParagraph } from './shaped-paragraph';

/** Part of a paragraph that stands on one line, UTF-16 units; `end` without the spaces at its end. */
export interface Extent {
  readonly from: number;
  readonly end: number;
  readonly to: number;
  /** In points, without the spaces at its end. */
  readonly width: number;
  /** Whether a line break, or the end of the paragraph, ends it. */
  readonly isLast: boolean;
}

/** Spaces hang over the edge at the end of a line, as line breaks and tabs do (UAX #14, LB7; CSS Text 3, 4.1.3). */
const HANGS = /[ \t\u1680\u2000-\u2006\u2008-\u200a\u205f\u3000\u2028]/;
/** What adding lengths up may be out by, in points. */
const NEARLY = 1e-6;

/** Where a tab leads to, from a place on the line; in points from the paragraph's edge. */
export type TabStop = (x: number) => number;

/** Tab stops that are set, and behind the last of them one every so many points. */
export const tabStops =
  (set: readonly number[], every: number): TabStop =>
  (x) =>
    set.find((stop) => stop > x + NEARLY) ?? (Math.floor((x + NEARLY) / every) + 1) * every;

/** Parts a paragraph into lines that are so wide at the most: each as long as can be (UAX #14 says where they may end). */
export function fill(paragraph: ShapedParagraph, room: number, tabs: TabStop): readonly Extent[] {
  const { text, breaks } = paragraph;
  if (text === '') return [{ from: 0, end: 0, to: 0, width: 0, isLast: true }];
  const lines: Extent[] = [];
  let from = 0;
  let next = 0;
  while (from < text.length) {
    let best: Extent | undefined;
    for (; next < breaks.length; next++) {
      const { at, isForced } = breaks[next];
      if (at <= from) continue;
      const end = withoutSpaces(text, from, at);
      const width = widthOf(paragraph, from, end, tabs);
      if (width > room + NEARLY) break;
      best = { from, end, to: at, width, isLast: isForced || at === text.length };
      if (isForced) {
        next++;
        break;
      }
    }
    best ??= broken(paragraph, from, room, tabs);
    lines.push(best);
    from = best.to;
  }
  // A line break at the very end begins a line that is empty.
  if (text.endsWith('\u2028')) lines.push({ from, end: from, to: from, width: 0, isLast: true });
  return lines;
}

/** A line that ends within a word that is longer than any line. */
function broken(paragraph: ShapedParagraph, from: number, room: number, tabs: TabStop): Extent {
  const { text } = paragraph;
  let to = paragraph.fitting(from, room);
  if (paragraph.hasTabs)
    while (to > from + 1 && widthOf(paragraph, from, to, tabs) > room + NEARLY) to--;
  const end = withoutSpaces(text, from, to);
  const width = widthOf(paragraph, from, end, tabs);
  return { from, end, to, width, isLast: to === text.length };
}

function withoutSpaces(text: string, from: number, to: number): number {
  let end = to;
  while (end > from && HANGS.test(text[end - 1])) end--;
  return end;
}

function widthOf(paragraph: ShapedParagraph, from: number, to: number, tabs: TabStop): number {
  if (!paragraph.hasTabs) return paragraph.width(from, to);
  let [x, at] = [0, from];
  for (let tab = paragraph.text.indexOf('\t', at); tab >= 0 && tab < to;) {
    x = tabs(x + paragraph.width(at, tab));
    at = tab + 1;
    tab = paragraph.text.indexOf('\t', at);
  }
  return x + paragraph.width(at, to);
}
