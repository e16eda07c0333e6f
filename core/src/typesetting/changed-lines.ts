import type { Box } from '../geometry/index';
import type { GlyphRun, Line, TextLayout } from './text-layout';

/**
 * Where two texts of one width differ to the eye: nothing where they do not. In points from their top left; letters may
 * reach over it by a part of a line (`OVER`), and by their size to the left.
 */
export function changedLines(before: TextLayout, after: TextLayout): Box | undefined {
  const [a, b] = [before.lines, after.lines];
  let first = 0;
  while (first < a.length && first < b.length && sameUpTo(a[first], b[first]) === undefined)
    first++;
  let last = 0;
  while (
    last < a.length - first &&
    last < b.length - first &&
    sameUpTo(a[a.length - 1 - last], b[b.length - 1 - last]) === undefined
  )
    last++;
  const gone = a.slice(first, a.length - last);
  const come = b.slice(first, b.length - last);
  const changed = [...gone, ...come];
  if (changed.length === 0) return undefined;
  const starts = gone.map((line, i) => (come[i] ? sameUpTo(line, come[i]) : -Infinity) ?? Infinity);
  return {
    x0: come.length > gone.length ? -Infinity : Math.min(...starts),
    y0: Math.min(...changed.map(({ top }) => top)),
    x1: Infinity,
    y1: Math.max(...changed.map(({ top, height }) => top + height)),
  };
}

/** How far from the left two lines are the same, in points; undefined where they are so altogether. */
function sameUpTo(a: Line, b: Line): number | undefined {
  if (a === b) return undefined;
  if (a.top !== b.top || a.height !== b.height || a.baseline !== b.baseline) return -Infinity;
  const [markers, others] = [a, b].map(({ marker }) => marker?.runs ?? []);
  return runsUpTo(markers, others) === undefined ? runsUpTo(a.runs, b.runs) : -Infinity;
}

function runsUpTo(a: readonly GlyphRun[], b: readonly GlyphRun[]): number | undefined {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const [one, other] = [a[i] as GlyphRun | undefined, b[i] as GlyphRun | undefined];
    if (!one || !other) return (one ?? other)!.x;
    const x = glyphsUpTo(one, other);
    if (x !== undefined) return x;
  }
  return undefined;
}

function glyphsUpTo(a: GlyphRun, b: GlyphRun): number | undefined {
  if (a.shaped === b.shaped && isSetAlike(a, b)) return a.width === b.width ? undefined : a.x;
  if (!isSetAlike(a, b)) return Math.min(a.x, b.x);
  let x = a.x;
  const [one, other] = [a.shaped, b.shaped];
  const length = Math.min(one.glyphs.length, other.glyphs.length);
  for (let i = 0; i < length; i++) {
    if (
      one.glyphs[i] !== other.glyphs[i] ||
      one.advances[i] !== other.advances[i] ||
      one.right[i] !== other.right[i] ||
      one.up[i] !== other.up[i]
    )
      return x;
    x += one.advances[i] * a.size;
  }
  return one.glyphs.length === other.glyphs.length && a.width === b.width ? undefined : x;
}

/** Stretched spaces stand elsewhere where others come before them. */
const isSetAlike = (a: GlyphRun, b: GlyphRun): boolean =>
  a.x === b.x &&
  a.y === b.y &&
  a.size === b.size &&
  a.face.id === b.face.id &&
  a.stretch === b.stretch &&
  (a.stretch === 0 || a.text === b.text) &&
  (a.look === b.look || JSON.stringify(a.look) === JSON.stringify(b.look));
