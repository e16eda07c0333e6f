import { compose, type Matrix } from '../../geometry/index';
import {
  ShapedParagraph,
  mappedCommands,
  pathCommands,
  type Formula,
  type GlyphRun,
} from '../../typesetting/index';
import { serializeNumber } from '../objects/index';
import type { TypeTools } from './type-tools';

/** A formula as outlines that are filled (ISO 32000-1, 8.5); `toUser` from the text's space to that it is written in. */
export function formulaOperators({ outlines }: Formula, run: GlyphRun, toUser: Matrix): string {
  const map = compose([run.size, 0, 0, run.size, run.x, run.y], toUser);
  return outlines
    .map(({ path, within }) => {
      const filled = mappedCommands(pathCommands(path), map)
        .map(({ letter, points }) => `${points.map(number).join(' ')} ${OPERATORS[letter]}`.trim())
        .join(' ');
      if (!within) return `${filled} f`;
      const { x0, y0, x1, y1 } = within;
      const corners = [x0, y0, x1, y0, x1, y1, x0, y1];
      const seen = mappedCommands(
        [0, 2, 4, 6].map((i) => ({ letter: i === 0 ? 'M' : 'L', points: corners.slice(i, i + 2) })),
        map,
      ).map(({ letter, points }) => `${points.map(number).join(' ')} ${OPERATORS[letter]}`);
      return `q ${seen.join(' ')} h W n ${filled} f Q`;
    })
    .join('\n');
}

const OPERATORS = { M: 'm', L: 'l', C: 'c', Z: 'h' } as const;
const number = (value: number): string => serializeNumber(Math.round(value * 1000) / 1000);

/** A text that is not seen, from where its letters begin. */
export interface ToldFormula {
  readonly runs: readonly GlyphRun[];
  /** From its own space to that of the text around it. */
  readonly map: Matrix;
}

/**
 * What a formula is found and copied by: its TeX notation between the marks of that, in letters so narrow that they are as
 * wide as the formula, and as high as those around it where that can be. They are to be written without being seen (9.3.6).
 */
export function toldFormula(run: GlyphRun, { typesetter }: TypeTools): ToldFormula {
  const { formula, underline: _underline, strike: _strike, script: _script, ...look } = run.look;
  const words = `$${formula ?? run.text}$`;
  const shaped = new ShapedParagraph(typesetter.engine, { runs: [{ text: words }] }, look);
  const share = Math.max(LEAST_SHARE, run.width / shaped.width(0, shaped.text.length));
  const narrowed = Math.min(1, Math.max(NARROWEST, share));
  let x = 0;
  const runs = shaped.items.map(({ from, to, face }, i): GlyphRun => {
    const width = shaped.width(from, to);
    const text = shaped.text.slice(from, to);
    const place = { x, y: 0, width, stretch: 0, isRightToLeft: false, from, to, text };
    x += width;
    return { face, look, size: look.size, shaped: shaped.shaped[i], ...place };
  });
  return { runs, map: [share, 0, 0, share / narrowed, run.x, run.y] };
}

/**
 * How narrow letters are made before they are made lower too: programs that read text take what is narrower than a tenth of
 * the size for no space (common practice, no source).
 */
const NARROWEST = 0.8;
/** They are as large as so much of their size at the least: no program divides by it. */
const LEAST_SHARE = 0.01;
