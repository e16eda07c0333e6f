import type { FindQuery } from './query';
import { termPlaces, type FoldedPage, type TermPlace } from './matches';

/** What is found: words of a page, or something that people named. */
export const hitKinds = [
  'text',
  'title',
  'outline',
  'bookmark',
  'keyword',
  'contents',
  'address',
] as const;
export type HitKind = (typeof hitKinds)[number];

/** How much it says that a thing of a kind is called so; in the ranking's explanation, docs/ranking.md. */
const SAYS: Record<Exclude<HitKind, 'text'>, number> = {
  title: 4,
  outline: 4,
  keyword: 4,
  bookmark: 3.5,
  contents: 2,
  address: 1,
};

/** What is known of the whole library. */
export interface LibraryFacts {
  readonly pages: number;
  /** On how many pages each term of the query stands; as many as there are terms. */
  readonly pagesWith: readonly number[];
}

/** Okapi BM25's constants, as S. Robertson and H. Zaragoza, “The Probabilistic Relevance Framework” (2009), propose. */
const K1 = 1.2;
const B = 0.75;
/** Characters of an ordinary page of text. */
const ORDINARY = 2400;

/** How much it tells that a term is there: much for rare ones. Robertson and Zaragoza, 3.1, kept above 0. */
export function weightsOf({ pages, pagesWith }: LibraryFacts): number[] {
  return pagesWith.map((n) => {
    const known = Math.min(n, pages);
    return Math.log(1 + (pages - known + 0.5) / (known + 0.5));
  });
}

/**
 * How well the words of a page answer a query: BM25 over its terms, and up to as much again when they stand close
 * together. Undefined when the page does not match.
 */
export function scorePage(
  page: FoldedPage,
  query: FindQuery,
  weights: readonly number[],
): number | undefined {
  const places = termPlaces(page, query);
  if (!places) return undefined;
  const length = 1 - B + B * (page.text.length / ORDINARY);
  const words = places.reduce((sum, { length: n }, i) => {
    return sum + (weights[i] * n * (K1 + 1)) / (n + K1 * length);
  }, 0);
  return words * (1 + closeness(places));
}

/** How well something that people named answers a query: the more of it is asked for, the better. */
export function scoreNamed(
  kind: Exclude<HitKind, 'text'>,
  named: FoldedPage,
  query: FindQuery,
  weights: readonly number[],
): number | undefined {
  const places = termPlaces(named, query);
  if (!places) return undefined;
  const asked = places.reduce((sum, [{ start, end }]) => sum + end - start, 0);
  const share = Math.min(1, asked / Math.max(1, named.text.replace(/\s/g, '').length));
  const weight = weights.reduce((sum, w) => sum + w, 0);
  return SAYS[kind] * weight * (0.5 + share);
}

/** 1 where all terms stand side by side, towards 0 where they are far apart; 0 for a single one. */
function closeness(places: readonly (readonly TermPlace[])[]): number {
  if (places.length < 2) return 0;
  const { start, end } = closest(places);
  const least = places.reduce((sum, [place]) => sum + place.end - place.start + 1, -1);
  return Math.min(1, least / (end - start));
}

/** The shortest stretch of text in which all terms stand; `places` as `termPlaces` gives them. */
export function closest(places: readonly (readonly TermPlace[])[]): TermPlace {
  const all = places
    .flatMap((at, term) => at.map((place) => ({ ...place, term })))
    .sort((a, b) => a.start - b.start);
  const seen = new Map<number, TermPlace>();
  let best: TermPlace | undefined;
  for (const place of all) {
    seen.set(place.term, place);
    if (seen.size < places.length) continue;
    const start = Math.min(...[...seen.values()].map((other) => other.start));
    const end = Math.max(...[...seen.values()].map((other) => other.end));
    if (!best || end - start < best.end - best.start) best = { start, end };
  }
  return best!;
}
