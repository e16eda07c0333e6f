import { spaceBetween, type Line } from '../text/index';

/** Stands where a hyphen parted a word at the end of a line. It is not seen, and folding leaves it out. */
export const SOFT_HYPHEN = '\u00ad';

/**
 * The words of a page as running text: in reading order with single spaces where their script writes any, those that a hyphen parts at the end
 * of a line joined by a soft one. Words are numbered as they come, line by line.
 */
export interface PageWords {
  readonly text: string;
  /** For each word, its place in `text`, in UTF-16 units. */
  readonly starts: Int32Array;
  /** Box and line of each word: x0, y0, x1, y1 in page space, and the number of its line. */
  readonly boxes: Float32Array;
}

/** Numbers kept for a word in `PageWords.boxes`. */
export const BOX = 5;

/** Lines as running text. */
export function pageWords(lines: readonly Line[]): PageWords {
  let text = '';
  const starts: number[] = [];
  const boxes: number[] = [];
  lines.forEach(({ words }, line) =>
    words.forEach((word, i) => {
      if (i === 0 && isParted(text, word.text)) text = text.slice(0, -1) + SOFT_HYPHEN;
      else if (text !== '') text += spaceBetween(text, word.text);
      starts.push(text.length);
      boxes.push(word.box.x0, word.box.y0, word.box.x1, word.box.y1, line);
      text += word.text;
    }),
  );
  return { text, starts: Int32Array.from(starts), boxes: Float32Array.from(boxes) };
}

/** Whether what comes goes on with a word that a hyphen, hard or soft, parts at a line's end. */
const isParted = (before: string, after: string): boolean =>
  // Eight units hold a hyphen and a letter with its marks: the whole text would be searched at every line.
  /\p{L}\p{M}*[-\u00ad\u2010]$/u.test(before.slice(-8)) && /^\p{L}/u.test(after);
