import type { ReadingPlace, ReadingReport, SeenPage } from '@stylet/core/api';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { pages, places, seenPages } from '../db/schema';

/** Where one was last in a document; null in one not read yet. */
export async function placeIn(
  queries: Queries,
  { account }: Identity,
  documentId: string,
): Promise<ReadingPlace | null> {
  const [row] = await queries
    .select({ pageId: places.pageId, share: places.share })
    .from(places)
    .where(and(eq(places.account, account), eq(places.documentId, documentId)));
  return row ?? null;
}

/** The pages of a document that were looked at. */
export async function seenIn(
  queries: Queries,
  { account }: Identity,
  documentId: string,
): Promise<SeenPage[]> {
  const rows = await queries
    .select({ pageId: seenPages.pageId, first: seenPages.first, last: seenPages.last })
    .from(seenPages)
    .innerJoin(pages, eq(pages.id, seenPages.pageId))
    .where(and(eq(seenPages.account, account), eq(pages.documentId, documentId)));
  return rows.map(({ pageId, first, last }) => ({
    pageId,
    first: first.toISOString(),
    last: last.toISOString(),
  }));
}

/** Keeps where one is and what was seen; pages that are gone meanwhile are passed over. */
export async function keepReading(
  queries: Queries,
  { account }: Identity,
  documentId: string,
  { place, seen }: ReadingReport,
): Promise<void> {
  const named = [...new Set([place.pageId, ...seen])];
  const rows = await queries
    .select({ id: pages.id })
    .from(pages)
    .where(and(eq(pages.documentId, documentId), inArray(pages.id, named)));
  const there = new Set(rows.map(({ id }) => id));
  if (there.has(place.pageId))
    await queries
      .insert(places)
      .values({ account, documentId, ...place })
      .onConflictDoUpdate({
        target: [places.account, places.documentId],
        set: { ...place, modified: sql`now()` },
      });
  const looked = seen.filter((id) => there.has(id));
  if (looked.length > 0)
    await queries
      .insert(seenPages)
      .values([...new Set(looked)].map((pageId) => ({ account, pageId })))
      .onConflictDoUpdate({
        target: [seenPages.account, seenPages.pageId],
        set: { last: sql`now()` },
      });
}
