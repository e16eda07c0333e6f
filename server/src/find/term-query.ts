import {
  editDistance,
  isAlone,
  piecesOf,
  slipsIn,
  withoutHyphens,
  type FindOptions,
} from '@stylet/core/find';
import { desc, inArray, like, sql, type SQL } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { terms } from '../db/schema';

/** A term as PostgreSQL looks for it. */
export interface TermQuery {
  /** A tsquery; undefined when the index can tell nothing of the term: it has neither letters nor digits. */
  readonly tsquery: string | undefined;
  /** Whether there is more to it than its pieces, so that what is found must be looked at. */
  readonly hasMore: boolean;
  /** Other words that are taken for it. */
  readonly near: readonly string[];
}

/** Words that go on before a part of one; the commonest ones, if there are more. */
const MOST_WORDS = 60;
/** A part of a word is found anywhere in it from so many letters on; shorter, at its start. */
const ANYWHERE = 5;
/** Words taken for another. */
const MOST_NEAR = 8;
/** Words compared letter by letter with one that may be misspelt. */
const MOST_COMPARED = 200;

/** How a folded term is to be looked for. */
export async function termQuery(
  queries: Queries,
  term: string,
  { wholeWords }: FindOptions,
  withNear: boolean,
): Promise<TermQuery> {
  const { pieces, hasMore } = piecesOf(term);
  if (pieces.length === 0) return { tsquery: undefined, hasMore: true, near: [] };
  const near = withNear && pieces.length === 1 ? await neighbours(queries, pieces[0]) : [];
  const joined = joinedForms(term);
  const forms = await Promise.all(
    [pieces, ...joined].map((form) => phrase(queries, form, wholeWords)),
  );
  const tsquery = `(${[...forms, ...near].join(' | ')})`;
  return { tsquery, hasMore: hasMore || joined.length > 0, near };
}

/** The pieces of a word with hyphens without one of them, as it stands where a line ended at that. */
const joinedForms = (term: string): (readonly string[])[] =>
  withoutHyphens(term).map(({ form }) => piecesOf(form).pieces);

/** Pieces one after the other. */
async function phrase(
  queries: Queries,
  pieces: readonly string[],
  wholeWords: boolean,
): Promise<string> {
  const words = await Promise.all(
    pieces.map((piece, i) =>
      wholeWords || isAlone(piece)
        ? Promise.resolve(piece)
        : alternatives(queries, piece, i === 0, i === pieces.length - 1),
    ),
  );
  return `(${words.join(' <-> ')})`;
}

/** The words that a piece of one belongs to, which may go on before it or after it. */
async function alternatives(
  queries: Queries,
  piece: string,
  isFirst: boolean,
  isLast: boolean,
): Promise<string> {
  // PostgreSQL finds what words begin with at one go; words in which it stands elsewhere are asked for one by one.
  const own = isLast ? `${piece}:*` : piece;
  if (!isFirst || piece.length < ANYWHERE) return own;
  // Pieces hold letters, digits and _, which LIKE takes for any character.
  const pattern = `%_${piece.replaceAll('_', '\\_')}${isLast ? '%' : ''}`;
  const words = await commonest(queries, like(terms.term, pattern), MOST_WORDS);
  return `(${[own, ...words].join(' | ')})`;
}

/** Words that differ from one by a slip or two, the commonest first. */
export async function neighbours(queries: Queries, word: string): Promise<string[]> {
  const slips = slipsIn(word);
  if (slips === 0) return [];
  const found = await commonest(queries, sql`${terms.term} % ${word}`, MOST_COMPARED);
  return found
    .filter((other) => other !== word && editDistance(word, other, slips) <= slips)
    .slice(0, MOST_NEAR);
}

async function commonest(queries: Queries, where: SQL, most: number): Promise<string[]> {
  const rows = await queries
    .select({ term: terms.term })
    .from(terms)
    .where(where)
    .orderBy(desc(terms.pages))
    .limit(most);
  return rows.map(({ term }) => term);
}

/** On how many pages each of some words stands. */
export async function pagesWith(
  queries: Queries,
  words: readonly string[],
): Promise<Map<string, number>> {
  if (words.length === 0) return new Map();
  const rows = await queries
    .select()
    .from(terms)
    .where(inArray(terms.term, [...words]));
  return new Map(rows.map(({ term, pages }) => [term, pages]));
}
