import { textOfParagraph } from '../typed/index';
import { runsOf, type Block } from './text';

/** What there is of a text. */
export interface Counts {
  /** As UAX #29 parts text into words, those with letters or digits. */
  readonly words: number;
  /** Of what people take for one (UAX #29, grapheme clusters), spaces with them. */
  readonly characters: number;
}

const words = new Intl.Segmenter('und', { granularity: 'word' });
const letters = new Intl.Segmenter('und', { granularity: 'grapheme' });
/** Each of it is a character of its own. */
const PLAIN = /^[\x20-\x7e]*$/;

const known = new WeakMap<object, Counts>();

/** Words and characters of a text. */
export function countsIn(text: string): Counts {
  let count = 0;
  for (const { isWordLike } of words.segment(text)) if (isWordLike) count++;
  return {
    words: count,
    characters: PLAIN.test(text) ? text.length : [...letters.segment(text)].length,
  };
}

/** Words and characters of blocks; what was counted of one is kept as long as that is the same object. */
export function countsOf(blocks: readonly Block[]): Counts {
  let [all, characters] = [0, 0];
  for (const block of blocks) {
    let own = known.get(block);
    if (!own) {
      own = countsIn(
        runsOf(block)
          .map((runs) => textOfParagraph({ runs: [...runs] }))
          .join('\n'),
      );
      known.set(block, own);
    }
    all += own.words;
    characters += own.characters;
  }
  return { words: all, characters };
}
