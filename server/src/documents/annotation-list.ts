import type { AnnotationList, AnnotationQuery } from '@stylet/core/api';
import { byOrder } from '@stylet/core/document';
import { eq } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { pageCounts, pages } from '../db/schema';
import { placeIn } from '../reading/store';
import { readAnnotations, summaryOf } from './queries';

/** The annotations asked for, of one revision where `queries` is a transaction. Throws Problem `document-not-found`. */
export async function listAnnotations(
  queries: Queries,
  identity: Identity,
  id: string,
  query: AnnotationQuery,
): Promise<AnnotationList> {
  const { revision, annotationCount } = await summaryOf(queries, id);
  const parted =
    query.most !== undefined && annotationCount > query.most
      ? await partOf(queries, identity, id, query.most, query.near)
      : { pageIds: query.pages, unread: [] };
  const list = await readAnnotations(queries, id, parted.pageIds);
  return { revision, annotations: list, unread: parted.unread };
}

/** Pages whose annotations are as many as may be read, those nearest to a page first and at least that; and the others. */
async function partOf(
  queries: Queries,
  identity: Identity,
  id: string,
  most: number,
  near: string | undefined,
): Promise<{ pageIds: string[]; unread: AnnotationList['unread'] }> {
  const counted = await countedPages(queries, id);
  const from = near ?? (await placeIn(queries, identity, id))?.pageId;
  const middle = Math.max(
    0,
    counted.findIndex(({ pageId }) => pageId === from),
  );
  const nearest = counted
    .map((page, i) => ({ ...page, away: Math.abs(i - middle) }))
    .sort((a, b) => a.away - b.away);
  const pageIds: string[] = [];
  const unread: AnnotationList['unread'] = [];
  let left = most;
  for (const { pageId, count, away } of nearest) {
    left -= count;
    if (left >= 0 || away === 0) pageIds.push(pageId);
    else if (count > 0) unread.push({ pageId, count });
  }
  return { pageIds, unread };
}

/** How many annotations each page has: those that are there in order, then those that were removed. */
async function countedPages(
  queries: Queries,
  id: string,
): Promise<{ pageId: string; count: number }[]> {
  const rows = await queries
    .select({
      id: pages.id,
      order: pages.order,
      removed: pages.removed,
      count: pageCounts.annotations,
    })
    .from(pages)
    .leftJoin(pageCounts, eq(pageCounts.pageId, pages.id))
    .where(eq(pages.documentId, id));
  return rows
    .sort((a, b) => Number(a.removed) - Number(b.removed) || byOrder(a, b))
    .map(({ id: pageId, count }) => ({ pageId, count: count ?? 0 }));
}
