import type { OperationLog } from '@stylet/core/api';
import type { ConfirmedOperation } from '@stylet/core/document';
import { and, asc, eq, gt, sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { documents, operations } from '../db/schema';
import { notFound } from './queries';

/** In one answer at the most; whoever needs more asks again from there. */
const MOST = 500;
/** Characters of operations in one answer, about: the first is always in it. */
const LONGEST = 4_000_000;

/** An operation as windows are told of it: JSON of a `ConfirmedOperation`. */
export interface WrittenOperation {
  readonly revision: number;
  readonly text: string;
}

/** What was done to a document after a revision, or the first of it, written down; `revision` is the document's now. */
export interface WrittenLog {
  readonly revision: number;
  readonly operations: readonly WrittenOperation[];
}

export const writtenOf = (one: ConfirmedOperation): WrittenOperation => ({
  revision: one.revision,
  text: JSON.stringify(one),
});

/**
 * As many of the first operations after a revision as one answer holds, in their order. What they did stays as PostgreSQL
 * writes it. Throws Problem `document-not-found`.
 */
export async function writtenSince(
  queries: Queries,
  documentId: string,
  since: number,
): Promise<WrittenLog> {
  // Taken first: joined with its document all that follow would be sorted, and written as text before that.
  const first = queries
    .select({
      id: operations.id,
      revision: operations.revision,
      baseRevision: operations.baseRevision,
      author: operations.author,
      at: operations.at,
      effect: operations.effect,
    })
    .from(operations)
    .where(and(eq(operations.documentId, documentId), gt(operations.revision, since)))
    .orderBy(asc(operations.revision))
    .limit(MOST)
    .as('first');
  // One statement: both are as they were at one moment.
  const rows = await queries
    .select({
      now: documents.revision,
      id: first.id,
      revision: first.revision,
      baseRevision: first.baseRevision,
      author: first.author,
      at: first.at,
      effect: sql<string>`${first.effect}::text`,
    })
    .from(documents)
    .leftJoin(first, sql`true`)
    .where(eq(documents.id, documentId))
    .orderBy(asc(first.revision));
  if (rows.length === 0) throw notFound(documentId);
  const written = rows.flatMap(({ id, revision, baseRevision, author, at, effect }) => {
    if (revision === null) return []; // Nothing was done since.
    const rest = JSON.stringify({ id, documentId, baseRevision, author, at });
    const text = `{"operation":${rest.slice(0, -1)},"effect":${effect}},"revision":${revision}}`;
    return { revision, text };
  });
  let length = 0;
  const fitting = written.findIndex(({ text }, i) => (length += text.length) > LONGEST && i > 0);
  return {
    revision: rows[0].now,
    operations: written.slice(0, fitting < 0 ? undefined : fitting),
  };
}

/** The same, read. */
export async function operationsSince(
  queries: Queries,
  documentId: string,
  since: number,
): Promise<OperationLog> {
  const { revision, operations } = await writtenSince(queries, documentId, since);
  return {
    revision,
    operations: operations.map(({ text }) => JSON.parse(text) as ConfirmedOperation),
  };
}
