import { goesOn } from '../text/paragraphs';
import type { Line } from '../text/lines';
import { isDivided } from '../text/range';
import { spaceBetween } from '../text/spacing';

/** A word as it is spoken: where it stands in its sentence, and which words of the page it is. */
export interface SpokenWord {
  readonly start: number;
  readonly end: number;
  /** By their numbers in the order of reading; two where a word is divided at the end of a line. */
  readonly pageWords: readonly number[];
}

/** What is spoken in one go. */
export interface Sentence {
  readonly text: string;
  readonly words: readonly SpokenWord[];
}

/** A full stop after one of these does not end a sentence (common practice, no source). */
const SHORTENED =
  /(?:^|[\s(])(?:\p{Lu}|Fig|Figs|Eq|Eqs|Sec|Ch|No|Nos|Vol|pp?|cf|vs|ca|approx|e\.g|i\.e|Dr|Mr|Mrs|Ms|Prof|St)\.\s*$/u;

/**
 * The sentences of a page's lines, in the order of reading. A sentence does not go beyond its paragraph; boundaries
 * are those of UAX #29, “Sentence Boundaries”, but for full stops that shorten a word.
 */
export function sentencesOf(lines: readonly Line[]): Sentence[] {
  const sentences: Sentence[] = [];
  let paragraph = new Paragraph();
  let number = 0;
  lines.forEach((line, i) => {
    if (i > 0 && !goesOn(lines[i - 1], line)) {
      sentences.push(...paragraph.sentences());
      paragraph = new Paragraph();
    }
    line.words.forEach(({ text }, place) => {
      paragraph.add(text, number++, i > 0 && place === 0);
    });
  });
  sentences.push(...paragraph.sentences());
  return sentences;
}

/** A paragraph's words put together to one text. */
class Paragraph {
  private text = '';
  private readonly words: { start: number; end: number; pageWords: number[] }[] = [];

  /** `opensLine`: what ends in a hyphen before it may be its first part. */
  add(word: string, number: number, opensLine: boolean): void {
    const last = this.words.at(-1);
    if (last && opensLine && isDivided(this.text, word)) {
      this.text = this.text.slice(0, -1) + word;
      last.end = this.text.length;
      last.pageWords.push(number);
      return;
    }
    if (this.text !== '') this.text += spaceBetween(this.text, word);
    const start = this.text.length;
    this.text += word;
    this.words.push({ start, end: this.text.length, pageWords: [number] });
  }

  sentences(): Sentence[] {
    const pieces: { from: number; to: number }[] = [];
    for (const { index, segment } of segmenter.segment(this.text)) {
      const before = pieces.at(-1);
      if (before && SHORTENED.test(this.text.slice(before.from, before.to)))
        before.to = index + segment.length;
      else pieces.push({ from: index, to: index + segment.length });
    }
    return pieces.flatMap(({ from, to }): Sentence[] => {
      const words = this.words
        .filter(({ start }) => start >= from && start < to)
        .map(({ start, end, pageWords }) => ({ start: start - from, end: end - from, pageWords }));
      const text = this.text.slice(from, to).trimEnd();
      // Rules and ornaments are not spoken.
      return /[\p{L}\p{N}]/u.test(text) && words.length > 0 ? [{ text, words }] : [];
    });
  }
}

const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' });

/** The word being spoken when speech has come to a place of a sentence's text; the first one before all. */
export function wordAtPlace({ words }: Sentence, place: number): SpokenWord {
  return words.findLast(({ start }) => start <= place) ?? words[0];
}

/** The sentence, by its number, that a word of the page is in; the next one where it is in none. */
export function sentenceWith(sentences: readonly Sentence[], pageWord: number): number {
  const found = sentences.findIndex(({ words }) => words.at(-1)!.pageWords.at(-1)! >= pageWord);
  return found < 0 ? sentences.length - 1 : found;
}
