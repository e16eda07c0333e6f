import makeBidi from 'bidi-js';

const bidi = makeBidi();

/** Whether there is anything that runs from the right, or says that it does: blocks of such scripts, and marks. */
const RUNS_FROM_THE_RIGHT =
  /[\u0590-\u08ff\u200f\u202a-\u202e\u2066-\u2069\ufb1d-\ufdff\ufe70-\ufeff\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

export interface Directions {
  /** That of the paragraph: 0 from the left, 1 from the right. */
  readonly base: number;
  /** The level of each UTF-16 unit (UAX #9); undefined where all are 0. */
  readonly levels: Uint8Array | undefined;
}

/** In which direction the parts of a paragraph run (UAX #9), by its first strong letter where none is given. */
export function directionsOf(text: string, direction?: 'ltr' | 'rtl'): Directions {
  if (direction !== 'rtl' && !RUNS_FROM_THE_RIGHT.test(text)) return { base: 0, levels: undefined };
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text, direction);
  return { base: paragraphs[0]?.level ?? (direction === 'rtl' ? 1 : 0), levels };
}

/** The order in which pieces of a line stand, from the left, by their levels (UAX #9, L2). */
export function visualOrder(levels: readonly number[]): number[] {
  const order = levels.map((_, i) => i);
  const highest = Math.max(0, ...levels);
  const lowestOdd = Math.min(...levels.filter((level) => level % 2 === 1), highest + 1);
  for (let level = highest; level >= lowestOdd; level--)
    for (let i = 0; i < order.length; i++) {
      if (levels[order[i]] < level) continue;
      let end = i;
      while (end < order.length && levels[order[end]] >= level) end++;
      order.splice(i, end - i, ...order.slice(i, end).reverse());
      i = end;
    }
  return order;
}
