import type { Line } from '../text/index';
import { fold } from './fold';

/**
 * The text of a page as it is searched: words in reading order with single spaces, those that a hyphen parts at
 * the end of a line joined. `words` tells which word each unit belongs to; -1 between words.
 */
export interface Searchable {
  readonly text: string;
  readonly words: Int32Array;
}

/** Lines as searchable text; words are numbered as they come, line by line. */
export function searchable(lines: readonly Line[], keepsCase = false): Searchable {
  let text = '';
  const words: number[] = [];
  const push = (piece: string, word: number): void => {
    text += piece;
    for (let i = 0; i < piece.length; i++) words.push(word);
  };
  let number = 0;
  for (const line of lines)
    line.words.forEach((word, i) => {
      const isFirst = i === 0;
      const folded = fold(word.text, keepsCase).text;
      if (text !== '') {
        if (isFirst && isParted(text, folded)) {
          text = text.slice(0, -1);
          words.pop();
        } else if (!text.endsWith(' ')) push(' ', -1);
      }
      push(folded, number++);
    });
  return { text, words: Int32Array.from(words) };
}

/** Whether what comes goes on with a word that a hyphen parts at a line's end. */
const isParted = (before: string, after: string): boolean =>
  /\p{L}[-‐]$/u.test(before) && /^\p{L}/u.test(after);
