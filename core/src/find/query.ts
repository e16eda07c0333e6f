import { foldedText } from './fold';

/** How words are compared. */
export interface FindOptions {
  readonly keepsCase: boolean;
  /** Whether words are found only as a whole. */
  readonly wholeWords: boolean;
}

/** What is looked for: all of `terms` on a page, none of `without`; each folded, a phrase with single spaces. */
export interface FindQuery {
  readonly terms: readonly string[];
  /** For each term, whole words that are taken for it as well. */
  readonly near?: readonly (readonly string[])[];
  readonly without: readonly string[];
  readonly options: FindOptions;
}

/**
 * Reads what was typed: words, “phrases in quotes” (straight or curly), and -words that must not be there.
 * Undefined when there is nothing to look for.
 */
export function parseQuery(typed: string, options: FindOptions): FindQuery | undefined {
  const terms: string[] = [];
  const without: string[] = [];
  for (const [, minus, phrase, word] of typed.matchAll(
    /(?:^|(?<=\s))(-?)(?:["“”„«]([^"“”«»]*)["“”»]?|(\S+))/gu,
  )) {
    const text = foldedText((phrase ?? word).trim().replace(/\s+/g, ' '), options.keepsCase);
    if (text !== '') (minus === '-' ? without : terms).push(text);
  }
  return terms.length > 0 ? { terms, without, options } : undefined;
}
