import type { Line } from '../text/index';
import { fold } from './fold';

/**
 * The text of a page as it is searched and as it stands: words in reading order with single spaces, those that a
 * hyphen parts at the end of a line joined.
 */
export interface Searchable {
  /** As it is searched, folded. */
  readonly text: string;
  /** As it stands. */
  readonly source: string;
  /** For each unit of `text`, its place in `source`. */
  readonly from: Int32Array;
  /** For each unit of `text`, the word it belongs to; -1 between words. */
  readonly words: Int32Array;
}

/** Lines as searchable text; words are numbered as they come, line by line. */
export function searchable(lines: readonly Line[], keepsCase = false): Searchable {
  let text = '';
  let source = '';
  const from: number[] = [];
  const words: number[] = [];
  let number = 0;
  for (const line of lines)
    line.words.forEach((word, i) => {
      const folded = fold(word.text, keepsCase);
      if (i === 0 && isParted(text, folded.text)) {
        text = text.slice(0, -1);
        source = source.slice(0, -1);
        from.pop();
        words.pop();
      } else if (text !== '' && !text.endsWith(' ')) {
        from.push(source.length);
        words.push(-1);
        text += ' ';
        source += ' ';
      }
      for (const at of folded.from) {
        from.push(source.length + at);
        words.push(number);
      }
      text += folded.text;
      source += word.text;
      number++;
    });
  return { text, source, from: Int32Array.from(from), words: Int32Array.from(words) };
}

/** Whether what comes goes on with a word that a hyphen parts at a line's end. */
const isParted = (before: string, after: string): boolean =>
  /\p{L}[-‐]$/u.test(before) && /^\p{L}/u.test(after);
