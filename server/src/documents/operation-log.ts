import type { OperationLog } from '@stylet/core/api';
import { and, asc, eq, gt } from 'drizzle-orm';
import { AT_ONCE, type Database, type Queries } from '../db/database';
import { documents, operations } from '../db/schema';
import { notFound } from './queries';

/** In one answer at the most; whoever needs more asks again from there. */
const MOST = 500;
/** Characters of effects in one answer, about: the first is always in it. */
const LONGEST = 4_000_000;

/** What was done to a document after a revision, or the first of it. Throws Problem `document-not-found`. */
export async function operationsSince(
  database: Database,
  documentId: string,
  since: number,
): Promise<OperationLog> {
  return database.transaction(async (queries) => {
    const [document] = await queries
      .select({ revision: documents.revision })
      .from(documents)
      .where(eq(documents.id, documentId));
    if (!document) throw notFound(documentId);
    const operations = await operationsAfter(queries, documentId, since);
    return { revision: document.revision, operations };
  }, AT_ONCE);
}

/** The operations that follow a revision, in their order: as many of the first as one answer holds. */
export async function operationsAfter(
  queries: Queries,
  documentId: string,
  since: number,
): Promise<OperationLog['operations']> {
  const rows = await queries
    .select({
      id: operations.id,
      documentId: operations.documentId,
      revision: operations.revision,
      baseRevision: operations.baseRevision,
      author: operations.author,
      at: operations.at,
      effect: operations.effect,
    })
    .from(operations)
    .where(and(eq(operations.documentId, documentId), gt(operations.revision, since)))
    .orderBy(asc(operations.revision))
    .limit(MOST);
  let length = 0;
  const fitting = rows.findIndex(
    ({ effect }, i) => (length += JSON.stringify(effect).length) > LONGEST && i > 0,
  );
  return rows.slice(0, fitting < 0 ? undefined : fitting).map(({ revision, at, ...rest }) => ({
    operation: { ...rest, at: at.toISOString() },
    revision,
  }));
}
