import type { Face, Look } from '../typed/index';
import type { Shaped } from './engine';
import type { Formula } from './formula';

/** Glyphs that stand beside each other on a line; lengths in points, from the top left of the text. */
export interface GlyphRun {
  readonly face: Face;
  readonly look: Look;
  /** The size they are drawn in. */
  readonly size: number;
  readonly shaped: Shaped;
  /** Where the first one stands, and the baseline, raised or lowered as their look says. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** What is added to each space, in points. */
  readonly stretch: number;
  readonly isRightToLeft: boolean;
  /** What of the paragraph they stand for, in UTF-16 units, and the text of that. */
  readonly from: number;
  readonly to: number;
  readonly text: string;
  /** The formula that stands there, and is no glyphs. */
  readonly formula?: Formula;
}

export interface Line {
  /** Which paragraph it is of. */
  readonly paragraph: number;
  readonly from: number;
  readonly to: number;
  readonly x: number;
  readonly width: number;
  readonly top: number;
  readonly height: number;
  readonly baseline: number;
  /** From the left. */
  readonly runs: readonly GlyphRun[];
  /** What stands before the first line of a paragraph of a list. */
  readonly marker: { readonly text: string; readonly runs: readonly GlyphRun[] } | undefined;
}

/** Text laid out in lines; all lengths in points. */
export interface TextLayout {
  readonly lines: readonly Line[];
  /** That of the longest line, with what stands before it. */
  readonly width: number;
  readonly height: number;
}
