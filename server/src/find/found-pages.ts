import type { FoundPage } from '@stylet/core/api';
import { unpackWords, type PageWords } from '@stylet/core/find';
import { sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { documents, pages, sourceTexts } from '../db/schema';
import { layerKey, type LayerOfSheet } from './sheet-texts';

/** Pages as they are told with what was found on them: their places in their documents, and their labels. */
export async function foundPages(
  queries: Queries,
  pageIds: readonly string[],
): Promise<Map<string, FoundPage>> {
  if (pageIds.length === 0) return new Map();
  const { rows } = await queries.execute<Record<string, unknown>>(sql`
    select p.id, n.index, coalesce(p.label, (n.index + 1)::text) as label, p.source,
      p.source_index as "sourceIndex", p.width, p.height, p.rotation
    from ${pages} p cross join lateral (
      select count(*)::int as index from ${pages} before
      where before.document_id = p.document_id and not before.removed
        and before."order" collate "C" < p."order" collate "C"
    ) n
    where p.id = any(${sql.param([...pageIds])}::uuid[])`);
  return new Map((rows as unknown as FoundPage[]).map((page) => [page.id, page]));
}

/** Places and boxes of the words on pages. */
export async function wordsOn(
  queries: Queries,
  wanted: readonly LayerOfSheet[],
): Promise<Map<string, Omit<PageWords, 'text'>>> {
  if (wanted.length === 0) return new Map();
  const rows = await queries
    .select({ sheet: sourceTexts.sheet, layer: sourceTexts.layer, words: sourceTexts.words })
    .from(sourceTexts)
    .where(sql`${sourceTexts.sheet} = any(${sql.param(wanted.map(({ sheet }) => sheet))}::int[])`);
  return new Map(rows.map((row) => [layerKey(row), unpackWords(row.words)]));
}

/** The titles of documents. */
export async function titlesOf(
  queries: Queries,
  ids: readonly string[],
): Promise<Map<string, string>> {
  const rows = await queries
    .select({ id: documents.id, title: documents.title })
    .from(documents)
    .where(sql`${documents.id} = any(${sql.param([...ids])}::uuid[])`);
  return new Map(rows.map(({ id, title }) => [id, title]));
}
