import { Problem } from '@stylet/core/problems';
import { eq, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database';
import { documents, pages, pictures, sources } from '../db/schema';
import { notFound } from '../documents/queries';

/** Puts a document into the trash, or brings it back. Throws Problem `document-not-found`. */
export async function setTrashed(queries: Queries, id: string, isTrashed: boolean): Promise<void> {
  const changed = await queries
    .update(documents)
    .set({ trashed: isTrashed ? sql`coalesce(${documents.trashed}, now())` : null })
    .where(eq(documents.id, id))
    .returning({ id: documents.id });
  if (changed.length === 0) throw notFound(id);
}

/**
 * Removes a document that is in the trash, with all that is on it, and those of its files that no other document
 * needs. Throws Problem `document-not-found` and `document-not-in-trash`.
 */
export async function removeForGood(database: Database, id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const [found] = await transaction
      .select({
        trashed: documents.trashed,
        original: documents.original,
        working: documents.working,
        typed: documents.typed,
        typedBefore: documents.typedBefore,
      })
      .from(documents)
      .where(eq(documents.id, id))
      .for('update');
    if (!found) throw notFound(id);
    if (!found.trashed) throw new Problem('document-not-in-trash', `${id} is in the library.`);
    const ofPages = await transaction
      .selectDistinct({ digest: pages.source })
      .from(pages)
      .where(eq(pages.documentId, id));
    await transaction.delete(documents).where(eq(documents.id, id));
    const { original, working, typed, typedBefore } = found;
    const own = [original, working, typed, typedBefore].filter((digest) => digest !== null);
    await removeUnused(transaction, [...own, ...ofPages.map(({ digest }) => digest)]);
  });
}

/** Removes those of some files that nothing needs any more. */
export async function removeUnused(queries: Queries, digests: readonly string[]): Promise<void> {
  await queries.execute(sql`
    delete from ${sources} s where s.digest = any(${sql.param([...new Set(digests)])}::text[])
      and not exists (select 1 from ${documents} d where s.digest in (d.original, d.working, d.typed))
      and not exists (select 1 from ${pages} p where p.source = s.digest)
      and not exists (select 1 from ${pictures} i where s.digest in (i.digest, i.page))`);
}
