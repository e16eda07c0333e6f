import type { Quad } from '../document/index';
import {
  contains,
  grow,
  inverse,
  transform,
  transformBox,
  unite,
  type Box,
  type Point,
} from '../geometry/index';
import type { Line } from './lines';
import { uprightFrame } from './words';

/** Words from one place to another, as a mark on text needs them. */
export interface TextRange {
  /** One a line, corners as `quadSchema` says. */
  readonly quads: Quad[];
  readonly contents: string;
}

/** How far off a line, in line heights, a point still counts as on it. */
const SLACK = 0.35;

/** The line under a point, or undefined when the point is not on text. */
export function lineAt(lines: readonly Line[], p: Point): Line | undefined {
  let best: Line | undefined;
  let nearest = Infinity;
  for (const line of lines) {
    const slack = SLACK * (line.frame.y1 - line.frame.y0);
    if (!contains(grow(line.box, slack), p)) continue;
    const d = distanceToBox(line.box, p);
    if (d < nearest) {
      nearest = d;
      best = line;
    }
  }
  return best;
}

/**
 * The words between two points in reading order, both ends' words included; undefined when the
 * first point is not on text. Beyond text, the second point counts as its nearest word.
 */
export function rangeBetween(
  lines: readonly Line[],
  from: Point,
  to: Point,
): TextRange | undefined {
  const startLine = lineAt(lines, from);
  if (!startLine) return undefined;
  const start = placeOf(lines, startLine, from);
  const endLine = lineAt(lines, to) ?? nearestLine(lines, to);
  const end = placeOf(lines, endLine, to);
  const [first, last] = isBefore(start, end) ? [start, end] : [end, start];
  const quads: Quad[] = [];
  const texts: string[] = [];
  for (let i = first.line; i <= last.line; i++) {
    const words = lines[i].words.slice(
      i === first.line ? first.word : 0,
      i === last.line ? last.word + 1 : undefined,
    );
    quads.push(quadOf(lines[i], words.map((word) => word.box).reduce(unite)));
    texts.push(words.map((word) => word.text).join(' '));
  }
  return { quads, contents: joinLines(texts) };
}

/** Lines of text as one; a hyphen at a line's end before a small letter is taken out. */
export function joinLines(texts: readonly string[]): string {
  return texts.reduce((whole, text) => {
    if (/\p{L}[-\u00ad\u2010]$/u.test(whole) && /^\p{Ll}/u.test(text))
      return whole.slice(0, -1) + text;
    return whole === '' ? text : `${whole} ${text}`;
  }, '');
}

interface Place {
  readonly line: number;
  readonly word: number;
}

const isBefore = (a: Place, b: Place): boolean =>
  a.line < b.line || (a.line === b.line && a.word <= b.word);

function placeOf(lines: readonly Line[], line: Line, p: Point): Place {
  let word = 0;
  let nearest = Infinity;
  line.words.forEach((candidate, i) => {
    const d = distanceToBox(candidate.box, p);
    if (d < nearest) {
      nearest = d;
      word = i;
    }
  });
  return { line: lines.indexOf(line), word };
}

function nearestLine(lines: readonly Line[], p: Point): Line {
  return lines.reduce((best, line) =>
    distanceToBox(line.box, p) < distanceToBox(best.box, p) ? line : best,
  );
}

function distanceToBox(box: Box, p: Point): number {
  const dx = Math.max(box.x0 - p.x, 0, p.x - box.x1);
  const dy = Math.max(box.y0 - p.y, 0, p.y - box.y1);
  return Math.hypot(dx, dy);
}

/** As wide as the words and as high as their line. */
function quadOf(line: Line, words: Box): Quad {
  const toFrame = uprightFrame(line.angle);
  const wide = transformBox(toFrame, words);
  const { x0, x1 } = wide;
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
