import { compose, type Matrix } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import {
  SLANT,
  THICKENED,
  glyphPlaces,
  textParts,
  type GlyphRun,
  type TextLayout,
} from '../../typesetting/index';
import type { FaceId } from '../../typed/index';
import { serializeNumber } from '../objects/index';
import { formulaOperators, toldFormula } from './formula-operators';
import type { TypeTools } from './type-tools';

/** The glyphs of each face that are used. */
export type UsedGlyphs = Map<FaceId, Set<number>>;

/**
 * Laid out text as operators (ISO 32000-1, 9.4), selectable, by its own letters; `toUser` from the text's space to that
 * it is written in. Faces are named by their ids, and noted in `used`.
 */
export function textOperators(
  layout: TextLayout,
  tools: TypeTools,
  toUser: Matrix,
  used: UsedGlyphs,
): string {
  const { engine } = tools.typesetter;
  const written: string[] = [];
  let color = '';
  for (const part of textParts(layout, engine)) {
    if (part.color !== color) {
      color = part.color;
      const shares = rgbOf(color)
        .map((share) => short(share))
        .join(' ');
      written.push(`${shares} rg ${shares} RG`);
    }
    if (part.kind === 'area') written.push(areaOperators(part.box, toUser));
    else if (part.kind === 'glyphs') written.push(runOperators(part.run, tools, toUser, used));
    else {
      written.push(formulaOperators(part.formula, part.run, toUser));
      const { runs, map } = toldFormula(part.run, tools);
      for (const told of runs)
        written.push(runOperators(told, tools, compose(map, toUser), used, true));
    }
  }
  return `${written.join('\n')}\n`;
}

function areaOperators(
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  toUser: Matrix,
): string {
  const [a, b, c, d, e, f] = toUser;
  const at = (x: number, y: number): string =>
    `${number(a * x + c * y + e)} ${number(b * x + d * y + f)}`;
  return `${at(x0, y0)} m ${at(x1, y0)} l ${at(x1, y1)} l ${at(x0, y1)} l h f`;
}

function runOperators(
  run: GlyphRun,
  tools: TypeTools,
  toUser: Matrix,
  used: UsedGlyphs,
  isUnseen = false,
): string {
  const { face, size } = run;
  const glyphs = used.get(face.id) ?? new Set();
  used.set(face.id, glyphs);
  for (const glyph of run.shaped.glyphs) glyphs.add(glyph);
  const slant = face.isSlanted ? SLANT : 0;
  // Letters have y up, the text's space has it down.
  const matrix = (x: number, y: number): string =>
    compose([1, 0, slant, 1, 0, 0], compose([1, 0, 0, -1, x, y], toUser))
      .map((value, i) => (i < 4 ? serializeNumber(round(value, 5)) : number(value)))
      .join(' ');
  const thick = isUnseen ? '3 Tr ' : face.isThickened ? `2 Tr ${number(THICKENED * size)} w ` : '';
  const lines = shownIn(run, tools).map(({ x, y, shows, means }) => {
    const show = `${matrix(x, y)} Tm ${shows}`;
    // 14.9.4: what glyphs stand for together, where that is not what each stands for elsewhere.
    return means === undefined ? show : `/Span <</ActualText <${utf16(means)}>>> BDC ${show} EMC`;
  });
  return `BT /${face.id} ${number(size)} Tf ${thick}\n${lines.join('\n')}\n${thick ? '0 Tr ' : ''}ET`;
}

interface Shown {
  readonly x: number;
  readonly y: number;
  /** Operators that show glyphs from there. */
  readonly shows: string;
  /** What they stand for, if that has to be said. */
  readonly means?: string;
}

/** What is shown of a run, and from where: in one piece as long as glyphs stand on the line and for what they are known for. */
function shownIn(run: GlyphRun, tools: TypeTools): Shown[] {
  const { shaped, size, face } = run;
  const { engine } = tools.typesetter;
  const places = glyphPlaces(run);
  const shown: Shown[] = [];
  let piece: { x: number; pen: number; parts: string[] } | undefined;
  const endPiece = (): void => {
    if (piece) shown.push({ x: piece.x, y: run.y, shows: `[${piece.parts.join('')}] TJ` });
    piece = undefined;
  };
  for (const { start, end, text } of clustersOf(run)) {
    const isKnown = end - start === 1 && tools.means(face.id, shaped.glyphs[start], text);
    if (isKnown && shaped.up[start] === 0) {
      const [x, glyph] = [places[2 * start], shaped.glyphs[start]];
      piece ??= { x, pen: x, parts: [] };
      const back = ((piece.pen - x) * 1000) / size;
      if (Math.abs(back) > LEAST_BACK) piece.parts.push(number(back));
      piece.parts.push(codeOf(glyph));
      piece.pen = x + engine.advance(face.id, glyph) * size;
      continue;
    }
    endPiece();
    for (let i = start; i < end; i++) {
      const shows = `${codeOf(shaped.glyphs[i])} Tj`;
      // The first says it for all of them.
      const means = isKnown ? {} : { means: i === start ? text : '' };
      shown.push({ x: places[2 * i], y: places[2 * i + 1], shows, ...means });
    }
  }
  endPiece();
  return shown;
}

/** Thousandths of the size that glyphs may be off their places. */
const LEAST_BACK = 0.5;

/** A glyph as a code of two bytes (9.7.5.2, Identity-H). */
const codeOf = (glyph: number): string => `<${glyph.toString(16).padStart(4, '0')}>`;

interface Cluster {
  /** Glyphs, from the left. */
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

/** Glyphs that stand for a text together, from the left, with that text. */
function clustersOf({ shaped: { clusters }, from, text, isRightToLeft }: GlyphRun): Cluster[] {
  const found: Cluster[] = [];
  for (let start = 0; start < clusters.length;) {
    let end = start + 1;
    while (end < clusters.length && clusters[end] === clusters[start]) end++;
    const beyond = isRightToLeft ? clusters[start - 1] : clusters[end];
    const own = text.slice(
      clusters[start] - from,
      beyond === undefined ? undefined : beyond - from,
    );
    found.push({ start, end, text: own });
    start = end;
  }
  return found;
}

/** A text string in UTF-16, with its mark, as hexadecimal (7.9.2.2). */
const utf16 = (text: string): string =>
  `feff${Array.from({ length: text.length }, (_, i) => text.charCodeAt(i).toString(16).padStart(4, '0')).join('')}`;

const round = (value: number, digits: number): number => {
  const scale = 10 ** digits;
  return Math.round(value * scale) / scale;
};
const number = (value: number): string => serializeNumber(round(value, 3));
const short = (value: number): string => serializeNumber(round(value, 3));
