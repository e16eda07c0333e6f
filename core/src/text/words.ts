import { transformBox, unite, type Box, type Matrix } from '../geometry/index';
import type { Glyph, TextAngle } from './glyphs';
import { standsAlone } from './spacing';

/** A run of glyphs without white space; boxes in page space. */
export interface Word {
  readonly text: string;
  readonly box: Box;
  readonly angle: TextAngle;
  readonly size: number;
  readonly bold: boolean;
}

/** Gap, in font sizes, that parts two words. */
const WORD_GAP = 0.1;
/** Step back, in font sizes, that starts a new word. */
const STEP_BACK = 0.5;
/** Shift of the baseline, in font sizes, that starts a new word; less is super- or subscript. */
const BASELINE_SHIFT = 0.35;

/** Turns page space so that text of an angle runs to the right; a frame with y down. */
export function uprightFrame(angle: TextAngle): Matrix {
  switch (angle) {
    case 0:
      return [1, 0, 0, 1, 0, 0];
    case 90:
      return [0, -1, 1, 0, 0, 0];
    case 180:
      return [-1, 0, 0, -1, 0, 0];
    case 270:
      return [0, 1, -1, 0, 0, 0];
  }
}

/**
 * Words from glyphs in the order in which they are drawn. White space and gaps part words; characters of scripts that
 * write no spaces are words of their own, with the punctuation that follows them.
 */
export function wordsOf(glyphs: readonly Glyph[]): Word[] {
  const words: Word[] = [];
  let current: { text: string; box: Box; last: Box; glyph: Glyph } | undefined;
  const finish = (): void => {
    if (!current) return;
    const { text, box, glyph } = current;
    const { angle, size, bold } = glyph;
    words.push({ text: text.normalize('NFKC'), box, angle, size, bold });
    current = undefined;
  };
  for (const glyph of glyphs) {
    if (glyph.text.trim() === '') {
      finish();
      continue;
    }
    const box = glyph.angle === 0 ? glyph.box : transformBox(uprightFrame(glyph.angle), glyph.box);
    if (current && (standsAlone(glyph.text) || parts(current.glyph, current.last, glyph, box)))
      finish();
    else if (current && standsAlone(current.glyph.text) && /[\p{L}\p{N}]/u.test(glyph.text))
      finish();
    if (current) {
      current.text += glyph.text;
      current.box = unite(current.box, glyph.box);
      current.last = box;
    } else {
      current = { text: glyph.text, box: glyph.box, last: box, glyph };
    }
  }
  finish();
  return words;
}

function parts(first: Glyph, last: Box, glyph: Glyph, box: Box): boolean {
  if (first.angle !== glyph.angle) return true;
  const size = Math.max(first.size, glyph.size);
  const gap = box.x0 - last.x1;
  return (
    gap > WORD_GAP * size ||
    gap < -STEP_BACK * size ||
    Math.abs(box.y1 - last.y1) > BASELINE_SHIFT * size
  );
}
