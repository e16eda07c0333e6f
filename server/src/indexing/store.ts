import type { IndexingState } from '@stylet/core/api';
import { and, asc, eq, gt, gte, isNotNull, isNull, lt, or, sql, type SQL } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { insertMany } from '../db/insert-many';
import { documents, indexing, pages, sourceTexts, sources, terms } from '../db/schema';
import { sheetsOf } from '../sources/sheets';
import type { ReadTexts } from './texts';

/** A file of which pages are to be read or drawn. */
export interface Job {
  readonly source: string;
  readonly size: number;
  readonly pages: number;
  readonly done: number;
}

/** Whoever has said nothing for so long has gone: its file is read on by another. */
const GONE = sql`interval '1 minute'`;

/** Has the text of a file read, unless that is under way or done. */
export async function queueIndexing(
  queries: Queries,
  source: string,
  pageCount: number,
): Promise<void> {
  await queries.insert(indexing).values({ source, pages: pageCount }).onConflictDoNothing();
}

const isUnread = and(lt(indexing.done, indexing.pages), isNull(indexing.trouble));
/** Miniatures are drawn of files that have been read: these can be found already. */
const isUndrawn = and(
  or(gte(indexing.done, indexing.pages), isNotNull(indexing.trouble)),
  lt(indexing.drawn, indexing.pages),
);

/** Takes the file that waits longest to be read, so that no other server takes it; none when all are read or taken. */
export const claimReading = (database: Database): Promise<Job | undefined> =>
  claim(database, isUnread, indexing.done);

/** Takes the file whose miniatures wait longest to be drawn. */
export const claimDrawing = (database: Database): Promise<Job | undefined> =>
  claim(database, isUndrawn, indexing.drawn);

async function claim(
  database: Database,
  isOpen: SQL | undefined,
  done: typeof indexing.done | typeof indexing.drawn,
): Promise<Job | undefined> {
  return database.transaction(async (transaction) => {
    const [job] = await transaction
      .select({ source: indexing.source, size: sources.size, pages: indexing.pages, done })
      .from(indexing)
      .innerJoin(sources, eq(sources.digest, indexing.source))
      .where(and(isOpen, or(isNull(indexing.claimed), lt(indexing.claimed, sql`now() - ${GONE}`))))
      .orderBy(asc(indexing.created))
      .limit(1)
      .for('update', { of: indexing, skipLocked: true });
    if (!job) return undefined;
    await transaction
      .update(indexing)
      .set({ claimed: sql`now()` })
      .where(eq(indexing.source, job.source));
    return job;
  });
}

/** Stores what was read of the pages `from` to before `to`, unless another server has read them meanwhile. */
export async function storeTexts(
  database: Database,
  source: string,
  from: number,
  to: number,
  { texts, terms: found }: ReadTexts,
): Promise<void> {
  await database.transaction(async (transaction) => {
    const advanced = await transaction
      .update(indexing)
      .set({ done: to, claimed: sql`now()` })
      .where(and(eq(indexing.source, source), eq(indexing.done, from)))
      .returning({ source: indexing.source });
    if (advanced.length === 0) return;
    const sheets = await sheetsOf(transaction, source, [from, to - 1]);
    const rows = texts.map(({ sourceIndex, ...text }) => ({
      ...text,
      sheet: sheets.get(sourceIndex)!,
      words: Buffer.from(text.words),
    }));
    await insertMany(transaction, sourceTexts, rows);
    // In one order everywhere, so that two servers never wait for each other.
    const counted = [...found].sort(([a], [b]) => (a < b ? -1 : 1));
    await transaction.execute(sql`
      insert into ${terms} (term, pages)
      select * from unnest(${sql.param(counted.map(([term]) => term))}::text[], ${sql.param(counted.map(([, n]) => n))}::int[])
      on conflict (term) do update set pages = ${terms}.pages + excluded.pages`);
  });
}

/** A file cannot be read: it is left alone, and said so. */
export async function giveUp(database: Database, source: string, trouble: string): Promise<void> {
  await database
    .update(indexing)
    .set({ trouble, claimed: null })
    .where(eq(indexing.source, source));
}

/** Gives a file back: it is done, or done on by another. */
export async function release(database: Database, source: string): Promise<void> {
  await database.update(indexing).set({ claimed: null }).where(eq(indexing.source, source));
}

/** Documents with pages whose text has not been read, or cannot be. */
export async function indexingState(queries: Queries, identity: Identity): Promise<IndexingState> {
  // From what is unread, which is little, to the documents that have pages of it.
  const used = queries
    .selectDistinct({ documentId: pages.documentId, source: pages.source })
    .from(indexing)
    .innerJoin(pages, and(eq(pages.source, indexing.source), sql`not ${pages.removed}`))
    .where(gt(indexing.pages, indexing.done))
    .as('used');
  const rows = await queries
    .select({
      id: documents.id,
      title: documents.title,
      pages: sql<number>`sum(${indexing.pages})::int`,
      done: sql<number>`sum(${indexing.done})::int`,
      trouble: sql<string | null>`min(${indexing.trouble})`,
    })
    .from(used)
    .innerJoin(documents, eq(documents.id, used.documentId))
    .innerJoin(indexing, eq(indexing.source, used.source))
    .where(and(isSeenBy(identity, documents.owner), isNull(documents.trashed)))
    .groupBy(documents.id, documents.title)
    .orderBy(asc(documents.title));
  return { documents: rows };
}
