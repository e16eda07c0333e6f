import { fold, parseQuery, type FindQuery } from '@stylet/core/find';
import type { Search } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { pagesWith, termQuery, type TermQuery } from './term-query';

/** A search as the library is asked it. */
export interface LibraryQuery {
  readonly query: FindQuery;
  readonly tsquery: string;
  /** Whether what the index finds has to be looked at before it counts. */
  readonly isChecked: boolean;
  /** On how many pages each term stands, as far as that is known. */
  readonly pagesWith: readonly number[];
  /** Pages in the library that have text. */
  readonly pages: number;
  readonly terms: readonly TermQuery[];
}

/** Makes a search into what PostgreSQL is asked. Throws Problem `find-without-words`. */
export async function libraryQuery(
  queries: Queries,
  { typed, keepsCase, wholeWords, near }: Search,
): Promise<LibraryQuery> {
  const parsed = parseQuery(typed, { keepsCase, wholeWords });
  if (!parsed) throw new Problem('find-without-words', `“${typed}” has no words.`);
  const look = (term: string, withNear: boolean): Promise<TermQuery> =>
    termQuery(queries, fold(term).text, parsed.options, withNear);
  const terms = await Promise.all(parsed.terms.map((term) => look(term, near)));
  const without = await Promise.all(parsed.without.map((term) => look(term, false)));
  if (terms.every(({ tsquery }) => tsquery === undefined))
    throw new Problem('find-without-words', `“${typed}” has neither letters nor digits.`);
  const parts = [
    ...terms.flatMap(({ tsquery }) => tsquery ?? []),
    // What has more to it than its pieces may be there without them: that is seen when it is looked at.
    ...without.flatMap(({ tsquery, hasMore }) => (tsquery && !hasMore ? `!${tsquery}` : [])),
  ];
  const counted = await pagesWith(queries, parsed.terms);
  return {
    query: near ? { ...parsed, near: terms.map((term) => term.near) } : parsed,
    tsquery: parts.join(' & '),
    isChecked: keepsCase || wholeWords || [...terms, ...without].some(({ hasMore }) => hasMore),
    pagesWith: parsed.terms.map((term) => counted.get(term) ?? 1),
    pages: await textPages(queries),
    terms,
  };
}

/** About how many pages have text: PostgreSQL keeps count. */
async function textPages(queries: Queries): Promise<number> {
  const { rows } = await queries.execute<{ pages: number }>(
    sql`select greatest(reltuples, 1)::int as pages from pg_class where oid = ${'source_texts'}::regclass`,
  );
  return Math.max(rows[0].pages, 1);
}
