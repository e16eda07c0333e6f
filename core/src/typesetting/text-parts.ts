import type { Box } from '../geometry/index';
import type { Engine } from './engine';
import type { Formula } from './formula';
import type { GlyphRun, Line, TextLayout } from './text-layout';

/** What is painted of laid out text, in the order in which it lies over each other; in points, from the text's top left. */
export type TextPart =
  | { readonly kind: 'area'; readonly color: string; readonly box: Box }
  | { readonly kind: 'glyphs'; readonly color: string; readonly run: GlyphRun }
  | {
      readonly kind: 'formula';
      readonly color: string;
      readonly run: GlyphRun;
      readonly formula: Formula;
    };

/** How far fonts without a slant of their own are slanted: 12 degrees (common practice, no source). */
export const SLANT = Math.tan((12 * Math.PI) / 180);
/** How wide the outline is that makes letters bold of a font without bold ones; a share of the size. */
export const THICKENED = 0.035;

/** How far letters may reach over the line they stand on, as a part of its height (common practice, no source). */
export const OVER = 0.3;

/** The parts that laid out text is painted of; where only a box of it is wanted, those of the lines that reach into it. */
export function textParts(layout: TextLayout, engine: Engine, within?: Box): TextPart[] {
  const parts: TextPart[] = [];
  const lines = within
    ? layout.lines.filter(
        ({ top, height }) =>
          top - OVER * height < within.y1 && top + (1 + OVER) * height > within.y0,
      )
    : layout.lines;
  for (const line of lines)
    for (const run of line.runs) {
      const { behind } = run.look;
      if (behind && run.width > 0)
        parts.push({ kind: 'area', color: behind, box: behindOf(line, run) });
    }
  for (const line of lines) {
    for (const run of [...(line.marker?.runs ?? []), ...line.runs]) {
      const { color } = run.look;
      if (run.formula) parts.push({ kind: 'formula', color, run, formula: run.formula });
      if (run.shaped.glyphs.length > 0) parts.push({ kind: 'glyphs', color, run });
      parts.push(...linesOn(run, engine));
    }
  }
  return parts;
}

/** The colour behind words reaches from line to line. */
const behindOf = ({ top, height }: Line, { x, width }: GlyphRun): Box => ({
  x0: x,
  y0: top,
  x1: x + width,
  y1: top + height,
});

/** Underline and strike, where the font says that they are. */
function linesOn(run: GlyphRun, engine: Engine): TextPart[] {
  const { look, x, y, width, size, face } = run;
  if (width <= 0) return [];
  const { underline, strike, thickness } = engine.metrics(face.id);
  const across = (up: number): TextPart => ({
    kind: 'area',
    color: look.color,
    box: {
      x0: x,
      y0: y - (up + thickness / 2) * size,
      x1: x + width,
      y1: y - (up - thickness / 2) * size,
    },
  });
  return [...(look.underline ? [across(underline)] : []), ...(look.strike ? [across(strike)] : [])];
}

/** Where each glyph of a run is drawn, in points from the text's top left: x and y in turn. */
export function glyphPlaces({ shaped, x, y, size, stretch, from, text }: GlyphRun): Float64Array {
  const { advances, right, up, clusters, glyphs } = shaped;
  const places = new Float64Array(2 * glyphs.length);
  let at = x;
  for (let i = 0; i < glyphs.length; i++) {
    places[2 * i] = at + right[i] * size;
    places[2 * i + 1] = y - up[i] * size;
    at += advances[i] * size;
    if (stretch !== 0 && text[clusters[i] - from] === ' ') at += stretch;
  }
  return places;
}
