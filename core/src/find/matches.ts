import type { FindQuery } from './query';
import type { Searchable } from './searchable';

/** A match: the words it touches, in order, and what stands there and around it. */
export interface Match {
  readonly words: readonly number[];
  readonly before: string;
  readonly match: string;
  readonly after: string;
}

/** So much of the text around a match is shown, in characters. */
const AROUND = 48;

/** The matches on a page, in the order of its text; none unless all terms are there and nothing that must not. */
export function matchesOn(
  { text, source, from, words }: Searchable,
  { terms, without, options }: FindQuery,
): Match[] {
  const places = (term: string): number[] => placesOf(text, term, options.wholeWords);
  if (without.some((term) => places(term).length > 0)) return [];
  const found = terms.map((term) => ({ term, at: places(term) }));
  if (found.some(({ at }) => at.length === 0)) return [];
  return found
    .flatMap(({ term, at }) => at.map((start) => ({ start, end: start + term.length })))
    .sort((a, b) => a.start - b.start || b.end - a.end)
    .map(({ start, end }) => ({
      words: [...new Set(words.subarray(start, end))].filter((word) => word >= 0),
      ...around(source, from[start], from[end] ?? source.length),
    }));
}

function around(source: string, start: number, end: number): Omit<Match, 'words'> {
  return {
    before: source.slice(Math.max(0, start - AROUND), start),
    match: source.slice(start, end),
    after: source.slice(end, end + AROUND),
  };
}

function placesOf(text: string, term: string, wholeWords: boolean): number[] {
  const places: number[] = [];
  for (let at = text.indexOf(term); at >= 0; at = text.indexOf(term, at + term.length))
    if (!wholeWords || (isEdge(text, at) && isEdge(text, at + term.length))) places.push(at);
  return places;
}

/** Whether no word goes on across a place: letters, digits and what joins them (after UAX #29, WB5 to WB13). */
function isEdge(text: string, at: number): boolean {
  return !(WORDY.test(text.charAt(at - 1)) && WORDY.test(text.charAt(at)));
}

const WORDY = /[\p{L}\p{N}_]/u;
