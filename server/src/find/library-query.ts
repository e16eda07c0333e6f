import { foldedText, parseQuery, piecesOf, type FindQuery } from '@stylet/core/find';
import type { Search } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { indexing } from '../db/schema';
import { pagesWith, termQuery, type TermQuery } from './term-query';

/** A search as the library is asked it. */
export interface LibraryQuery {
  readonly query: FindQuery;
  readonly tsquery: string;
  /** Whether what the index finds has to be looked at before it counts. */
  readonly isChecked: boolean;
  /** On how many pages each term stands, as far as that is known. */
  readonly pagesWith: readonly number[];
  /** Pages of the library that have been read. */
  readonly pages: number;
  readonly terms: readonly TermQuery[];
}

/** Words that are looked for at once, and pieces they have in all: each is looked up in the index by itself. */
const MOST_TERMS = 16;
const MOST_PIECES = 40;

/** Makes a search into what PostgreSQL is asked. Throws Problem `find-without-words` and `find-too-much`. */
export async function libraryQuery(
  queries: Queries,
  { typed, keepsCase, wholeWords, near }: Search,
): Promise<LibraryQuery> {
  const parsed = parseQuery(typed, { keepsCase, wholeWords });
  if (!parsed) throw new Problem('find-without-words', `“${typed}” has no words.`);
  checkSize(parsed);
  const look = (term: string, withNear: boolean): Promise<TermQuery> =>
    termQuery(queries, foldedText(term), parsed.options, withNear);
  const [terms, without, counted, pages] = await Promise.all([
    Promise.all(parsed.terms.map((term) => look(term, near))),
    Promise.all(parsed.without.map((term) => look(term, false))),
    pagesWith(queries, parsed.terms),
    pagesRead(queries),
  ]);
  if (terms.every(({ tsquery }) => tsquery === undefined))
    throw new Problem('find-without-words', `“${typed}” has neither letters nor digits.`);
  const parts = [
    ...terms.flatMap(({ tsquery }) => tsquery ?? []),
    // A term that says more than its pieces (a phrase, a case) cannot be excluded by them: the texts are looked at.
    ...without.flatMap(({ tsquery, hasMore }) => (tsquery && !hasMore ? `!${tsquery}` : [])),
  ];
  return {
    query: near ? { ...parsed, near: terms.map((term) => term.near) } : parsed,
    tsquery: parts.join(' & '),
    isChecked: keepsCase || wholeWords || [...terms, ...without].some(({ hasMore }) => hasMore),
    pagesWith: parsed.terms.map((term) => counted.get(term) ?? 1),
    pages,
    terms,
  };
}

function checkSize({ terms, without }: FindQuery): void {
  const all = [...terms, ...without];
  if (all.length > MOST_TERMS)
    throw new Problem('find-too-much', `At most ${MOST_TERMS} words or phrases are found at once.`);
  const pieces = all.reduce((sum, term) => sum + piecesOf(foldedText(term)).pieces.length, 0);
  if (pieces > MOST_PIECES)
    throw new Problem('find-too-much', `At most ${MOST_PIECES} words are found at once.`);
}

/** How many pages have been read. */
async function pagesRead(queries: Queries): Promise<number> {
  const [{ pages }] = await queries
    .select({ pages: sql<number>`coalesce(sum(${indexing.done}), 0)::int` })
    .from(indexing);
  return pages;
}
