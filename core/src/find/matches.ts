import type { FindQuery } from './query';
import { SOFT_HYPHEN } from './page-words';
import { wordsBetween, type Searchable } from './searchable';

/** A match: the words it touches, in order, and what stands there and around it. */
export interface Match {
  readonly words: readonly number[];
  readonly before: string;
  readonly match: string;
  readonly after: string;
}

/** Where a term stands in folded text: from `start` to before `end`, in UTF-16 units. */
export interface TermPlace {
  readonly start: number;
  readonly end: number;
}

/** So much of the text around a match is shown, in characters. */
const AROUND = 48;

/** The matches on a page, in the order of its text; none unless all terms are there and nothing that must not. */
export function matchesOn(page: Searchable, query: FindQuery): Match[] {
  const found = termPlaces(page, query);
  if (!found) return [];
  return found
    .flat()
    .sort((a, b) => a.start - b.start || b.end - a.end)
    .map((place) => matchAt(page, place));
}

/** A match with what stands around it. */
export function matchAt({ source, from, starts }: Searchable, { start, end }: TermPlace): Match {
  const [a, b] = [from[start], end < from.length ? from[end] : source.length];
  return {
    words: wordsBetween(starts, a, b),
    before: seen(wordsBefore(source, a)),
    match: seen(source.slice(a, b)),
    after: seen(wordsAfter(source, b)),
  };
}

/** What stands before a place, from the start of a word on where there is one. */
function wordsBefore(source: string, place: number): string {
  const start = Math.max(0, place - AROUND);
  const text = source.slice(start, place);
  const space = start > 0 && source[start - 1] !== ' ' ? text.indexOf(' ') : -1;
  return space >= 0 && space < AROUND / 2 ? text.slice(space + 1) : text;
}

/** What stands after a place, to the end of a word where there is one. */
function wordsAfter(source: string, place: number): string {
  const end = place + AROUND;
  const text = source.slice(place, end);
  const space = end < source.length && source[end] !== ' ' ? text.lastIndexOf(' ') : -1;
  return space > AROUND / 2 ? text.slice(0, space) : text;
}

const seen = (text: string): string => text.replaceAll(SOFT_HYPHEN, '');

/** For each term where it stands in folded text; undefined unless all are there and nothing that must not. */
export function termPlaces(
  page: FoldedPage,
  { terms, near, without, options }: FindQuery,
): TermPlace[][] | undefined {
  const places = (term: string): TermPlace[] => [
    ...placesOf(page.text, term, options.wholeWords),
    ...partedPlaces(page, term, options.wholeWords),
  ];
  if (without.some((term) => places(term).length > 0)) return undefined;
  const found = terms.map((term, i) => [
    ...places(term),
    ...(near?.[i] ?? []).flatMap((word) => placesOf(page.text, word, true)),
  ]);
  return found.some((at) => at.length === 0) ? undefined : found;
}

/** What of a page's text it takes to find terms. */
export type FoldedPage = Pick<Searchable, 'text' | 'source' | 'from'>;

function placesOf(text: string, term: string, wholeWords: boolean): TermPlace[] {
  const places: TermPlace[] = [];
  for (let at = text.indexOf(term); at >= 0; at = text.indexOf(term, at + term.length)) {
    const end = at + term.length;
    if (!wholeWords || (isEdge(text, at) && isEdge(text, end))) places.push({ start: at, end });
  }
  return places;
}

/** Where a word with a hyphen stands whose hyphen was taken for that of a line's end. */
function partedPlaces(page: FoldedPage, term: string, wholeWords: boolean): TermPlace[] {
  return withoutHyphens(term).flatMap(({ form, at }) =>
    placesOf(page.text, form, wholeWords).filter(
      ({ start }) => page.source.charAt(page.from[start + at] - 1) === SOFT_HYPHEN,
    ),
  );
}

/** A term without one of the hyphens within its words, for each of them, and where that was. */
export const withoutHyphens = (term: string): { readonly form: string; readonly at: number }[] =>
  [...term.matchAll(/(?<=\p{L})[-\u2010](?=\p{L})/gu)].map(({ index: at }) => ({
    form: term.slice(0, at) + term.slice(at + 1),
    at,
  }));

/**
 * Whether no word goes on across a place: letters, digits and what joins them (UAX #29, WB5 to WB13; text that is
 * folded has no marks left).
 */
function isEdge(text: string, at: number): boolean {
  const before = text.charAt(at - 1);
  const after = text.charAt(at);
  if (WORDY.test(before)) {
    if (WORDY.test(after)) return ALONE.test(before) || ALONE.test(after);
    return !joins(after, before, text.charAt(at + 1));
  }
  return !(WORDY.test(after) && joins(before, text.charAt(at - 2), after));
}

/** Whether a mark joins what stands on its two sides: it’s, 3.14 (WB6, WB7, WB11, WB12). */
function joins(mark: string, before: string, after: string): boolean {
  if (/\p{L}/u.test(before) && /\p{L}/u.test(after)) return BETWEEN_LETTERS.test(mark);
  return /\p{Nd}/u.test(before) && /\p{Nd}/u.test(after) && BETWEEN_DIGITS.test(mark);
}

const WORDY = /[\p{L}\p{N}_]/u;
/** Scripts whose every character may be a word; katakana, which are not (WB13), run on. */
const ALONE = /[\p{Script=Han}\p{Script=Hiragana}]/u;
const BETWEEN_LETTERS = /['’.:·‧\u2018\u2024\uff07\uff0e\uff1a]/u;
const BETWEEN_DIGITS = /['’.,;\u2018\u2024\u066c\uff07\uff0c\uff0e\uff1b]/u;
