import type { Markup } from '../document/index';
import type { PageText } from './page-text';
import type { TextRange } from './range';

/** Words joined with the marks they overlap. */
export interface Joined {
  readonly range: TextRange;
  /** The marks that are part of it now. */
  readonly replaces: readonly Markup[];
}

/**
 * What a new mark comes to among those that are there: one with all of its kind and colour that
 * share a word with it.
 */
export function joinMarks(
  text: PageText,
  mark: Pick<Markup, 'kind' | 'color' | 'quads'>,
  others: readonly Markup[],
): Joined {
  const words = new Set(text.covered(mark.quads));
  const replaces: Markup[] = [];
  const candidates = others
    .filter(({ kind, color }) => kind === mark.kind && color === mark.color)
    .map((other) => ({ other, covered: text.covered(other.quads) }));
  // A mark that joins may reach one that was out of reach before.
  for (let grown = true; grown;) {
    grown = false;
    for (const { other, covered } of candidates) {
      if (replaces.includes(other) || !covered.some((word) => words.has(word))) continue;
      replaces.push(other);
      for (const word of covered) words.add(word);
      grown = true;
    }
  }
  return { range: text.rangeOf([...words].sort((a, b) => a - b)), replaces };
}

/** What is left of a mark without some words: a range for each run of words that remains. */
export function splitMark(
  text: PageText,
  mark: Pick<Markup, 'quads'>,
  without: readonly number[],
): TextRange[] {
  const gone = new Set(without);
  const runs: number[][] = [];
  for (const word of text.covered(mark.quads)) {
    if (gone.has(word)) continue;
    const run = runs.at(-1);
    if (run && run[run.length - 1] === word - 1) run.push(word);
    else runs.push([word]);
  }
  return runs.map((run) => text.rangeOf(run));
}
