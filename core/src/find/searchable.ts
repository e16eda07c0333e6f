import { foldedFrom, foldedText } from './fold';
import type { PageWords } from './page-words';

/** The text of a page as it is searched and as it stands. */
export interface Searchable {
  /** As it is searched, folded. */
  readonly text: string;
  /** As it stands. */
  readonly source: string;
  /** For each unit of `text`, its place in `source`. */
  readonly from: Int32Array;
  /** For each word, its place in `source`. */
  readonly starts: Int32Array;
}

/** A page's words as searchable text. */
export function searchable(
  { text: source, starts }: Pick<PageWords, 'text' | 'starts'>,
  keepsCase = false,
): Searchable {
  let from: Int32Array | undefined;
  return {
    text: foldedText(source, keepsCase),
    source,
    starts,
    // Places in the original are worked out when there is a hit: most pages have none.
    get from() {
      return (from ??= foldedFrom(source, keepsCase));
    },
  };
}

/** Text that stands for itself, such as a title, as searchable text; it has no words with places. */
export const searchableText = (text: string, keepsCase = false): Searchable =>
  searchable({ text, starts: new Int32Array() }, keepsCase);

/** The numbers of the words that the units of `source` from `start` to before `end` belong to. */
export function wordsBetween(starts: Int32Array, start: number, end: number): number[] {
  const words: number[] = [];
  for (let word = wordAt(starts, start); word < starts.length && starts[word] < end; word++)
    if (word >= 0) words.push(word);
  return words;
}

/** The last word that starts at a place or before it; -1 for none. */
function wordAt(starts: Int32Array, place: number): number {
  let [low, high] = [0, starts.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (starts[middle] <= place) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
