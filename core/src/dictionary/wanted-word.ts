import { foldedText } from '../find/fold';

/** Letters, digits, and what may stand at the ends of a word like “.22” or “'hood”. */
const AROUND = /^[^\p{L}\p{N}.']+|[^\p{L}\p{N}]+$/gu;

/**
 * What is looked up for words as they stand on a page: without case, accents and ligatures, without punctuation
 * round them, single spaces between them, and no possessive ending. Empty where there is no letter or digit.
 */
export function wantedWord(text: string): string {
  const plain = foldedText(text).replaceAll('’', "'").replaceAll(/\s+/gu, ' ');
  const word = plain.replaceAll(AROUND, '').replace(/'s$/, '');
  return /[\p{L}\p{N}]/u.test(word) ? word : '';
}
