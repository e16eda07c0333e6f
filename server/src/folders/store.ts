import type { Folder, FolderList } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { checkRight, isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { documents, folders } from '../db/schema';

/** All folders, by name, and how many documents lie in each. */
export async function listFolders(queries: Queries, identity: Identity): Promise<FolderList> {
  const all = await queries
    .select({ id: folders.id, name: folders.name, parentId: folders.parentId })
    .from(folders)
    .where(isSeenBy(identity, folders.owner))
    .orderBy(asc(sql`lower(${folders.name})`), asc(folders.created));
  const counts = await queries
    .select({ folderId: documents.folderId, count: sql<number>`count(*)::int` })
    .from(documents)
    .where(and(isSeenBy(identity, documents.owner), isNull(documents.trashed)))
    .groupBy(documents.folderId);
  const known = new Map(counts.map(({ folderId, count }) => [folderId, count]));
  return {
    folders: all.map((folder) => ({ ...folder, documents: known.get(folder.id) ?? 0 })),
    outside: known.get(null) ?? 0,
  };
}

/**
 * Makes a folder, or gives it another name or place. Throws Problem `folder-not-found` for its parent, and
 * `folder-inside-itself`.
 */
export async function keepFolder(
  database: Database,
  identity: Identity,
  { id, name, parentId }: Folder,
): Promise<void> {
  await database.transaction(async (transaction) => {
    // One at a time: two folders could else be put into each other.
    await transaction.execute(sql`lock table ${folders} in share row exclusive mode`);
    if (parentId !== null) {
      await checkRight(transaction, identity, 'folder', parentId, 'edit');
      const above = await within(transaction, parentId, 'up');
      if (above.includes(id))
        throw new Problem('folder-inside-itself', `${parentId} lies in ${id}.`);
    }
    await transaction
      .insert(folders)
      .values({ id, owner: identity.account, name, parentId })
      .onConflictDoUpdate({ target: folders.id, set: { name, parentId } });
  });
}

/** Takes a folder away; what is in it moves up to where that was. Throws Problem `folder-not-found`. */
export async function removeFolder(database: Database, id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const [gone] = await transaction
      .select({ parentId: folders.parentId })
      .from(folders)
      .where(eq(folders.id, id))
      .for('update');
    if (!gone) throw notFound(id);
    const { parentId } = gone;
    await transaction.update(folders).set({ parentId }).where(eq(folders.parentId, id));
    await transaction
      .update(documents)
      .set({ folderId: parentId })
      .where(eq(documents.folderId, id));
    await transaction.delete(folders).where(eq(folders.id, id));
  });
}

/** Puts a document into a folder, or into none. Throws Problem `document-not-found` or `folder-not-found`. */
export async function putInFolder(
  database: Database,
  identity: Identity,
  documentId: string,
  folderId: string | null,
): Promise<void> {
  await database.transaction(async (transaction) => {
    if (folderId !== null) {
      await checkRight(transaction, identity, 'folder', folderId, 'edit');
      await checkFolder(transaction, folderId);
    }
    const moved = await transaction
      .update(documents)
      .set({ folderId })
      .where(eq(documents.id, documentId))
      .returning({ id: documents.id });
    if (moved.length === 0)
      throw new Problem('document-not-found', `No document has the id ${documentId}.`);
  });
}

/** Throws Problem `folder-not-found`; else the folder stays until the transaction ends. */
export async function checkFolder(queries: Queries, id: string): Promise<void> {
  const [found] = await queries
    .select({ id: folders.id })
    .from(folders)
    .where(eq(folders.id, id))
    .for('share');
  if (!found) throw notFound(id);
}

/** The documents in a folder and in those within it. Throws Problem `folder-not-found`. */
export async function documentsIn(queries: Queries, id: string): Promise<string[]> {
  const inside = await within(queries, id, 'down');
  const rows = await queries
    .select({ id: documents.id })
    .from(documents)
    .where(sql`${documents.folderId} = any(${sql.param(inside)}::uuid[])`);
  return rows.map((row) => row.id);
}

/** A folder and all that lie within it, or that it lies in. */
export async function within(queries: Queries, id: string, way: 'up' | 'down'): Promise<string[]> {
  const next = way === 'down' ? sql`f.parent_id = t.id` : sql`f.id = t.parent_id`;
  const { rows } = await queries.execute<{ id: string }>(sql`
    with recursive t as (
      select id, parent_id from ${folders} where id = ${id}
      union
      select f.id, f.parent_id from ${folders} f join t on ${next}
    ) select id from t`);
  if (rows.length === 0) throw notFound(id);
  return rows.map((row) => row.id);
}

const notFound = (id: string): Problem =>
  new Problem('folder-not-found', `No folder has the id ${id}.`);
