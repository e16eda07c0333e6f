import type { Quad } from '../document/index';
import { contains, grow, type Box, type Point } from '../geometry/index';
import type { Line } from './lines';
import { spaceBetween } from './spacing';

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

/** The line nearest to a point; there must be one. */
export function nearestLine(lines: readonly Line[], p: Point): Line {
  return lines.reduce((best, line) =>
    distanceToBox(line.box, p) < distanceToBox(best.box, p) ? line : best,
  );
}

/** Distance of a point from a box, 0 inside, in points. */
export function distanceToBox(box: Box, p: Point): number {
  const dx = Math.max(box.x0 - p.x, 0, p.x - box.x1);
  const dy = Math.max(box.y0 - p.y, 0, p.y - box.y1);
  return Math.hypot(dx, dy);
}

/** Whether text that ends a line and what begins the next are parts of one word: a hyphen before a small letter. */
export const isDivided = (before: string, after: string): boolean =>
  /\p{L}[-\u00ad\u2010]$/u.test(before) && /^\p{Ll}/u.test(after);

/** Lines of text as one; the hyphen of a word that is divided between two is taken out. */
export function joinLines(texts: readonly string[]): string {
  return texts.reduce((whole, text) => {
    if (isDivided(whole, text)) return whole.slice(0, -1) + text;
    return whole === '' ? text : whole + spaceBetween(whole, text) + text;
  }, '');
}
