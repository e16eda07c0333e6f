import type { HungKeyword } from '@stylet/core/api';
import type { Keyword } from '@stylet/core/document';
import { and, asc, isNull, eq, sql } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { fromRow } from '../documents/annotation-rows';

/** The keywords of all documents, by document and page. */
export async function listKeywords(queries: Queries, identity: Identity): Promise<HungKeyword[]> {
  const rows = await queries
    .select({
      fields: landmarks.fields,
      documentId: documents.id,
      title: documents.title,
    })
    .from(landmarks)
    .innerJoin(documents, eq(documents.id, landmarks.documentId))
    .where(
      and(
        sql`${landmarks.fields} ->> 'kind' = 'keyword'`,
        isSeenBy(identity, documents.owner),
        isNull(documents.trashed),
      ),
    )
    .orderBy(asc(documents.title), asc(documents.id));
  const found = await pagesOf(
    queries,
    rows.map(({ fields }) => (fields as Keyword).place.pageId),
  );
  const keywords = rows
    .flatMap((row) => {
      const fields = row.fields as Keyword;
      const page = found.get(fields.place.pageId);
      return page ? [{ ...row, ...page, fields }] : [];
    })
    // Sorting is stable: documents keep the order in which they come.
    .sort((a, b) => (a.documentId === b.documentId ? a.at - b.at : 0));
  const faces = await facesOf(
    queries,
    keywords.flatMap(({ documentId, fields }) =>
      (fields.annotationIds ?? []).map((id) => ({ documentId, id })),
    ),
  );
  return keywords.map(({ fields, at: _, ...where }) => ({
    ...where,
    id: fields.id,
    word: fields.word,
    place: fields.place,
    face: (fields.annotationIds ?? []).flatMap(
      (id) => faces.get(`${where.documentId} ${id}`) ?? [],
    ),
  }));
}

/** Pages by their ids: where each stands, and what it is called. */
async function pagesOf(
  queries: Queries,
  ids: readonly string[],
): Promise<Map<string, { readonly at: number; readonly label: string }>> {
  if (ids.length === 0) return new Map();
  const { rows } = await queries.execute<{ id: string; label: string | null; at: number }>(sql`
    select p.id, p.label, (
      select count(*)::int from ${pages} q
      where q.document_id = p.document_id and not q.removed
        and (q."order" collate "C", q.id) < (p."order" collate "C", p.id)
    ) as at
    from ${pages} p where p.id = any(${sql.param([...new Set(ids)])}::uuid[]) and not p.removed`);
  return new Map(rows.map(({ id, label, at }) => [id, { at, label: label ?? String(at + 1) }]));
}

/** Annotations by their documents and ids. */
async function facesOf(
  queries: Queries,
  wanted: readonly { readonly documentId: string; readonly id: string }[],
): Promise<Map<string, ReturnType<typeof fromRow>>> {
  if (wanted.length === 0) return new Map();
  const rows = await queries
    .select()
    .from(annotations)
    .where(
      sql`(${annotations.documentId}, ${annotations.id}) in (select * from unnest(
        ${sql.param(wanted.map(({ documentId }) => documentId))}::uuid[],
        ${sql.param(wanted.map(({ id }) => id))}::uuid[]))`,
    );
  return new Map(rows.map((row) => [`${row.documentId} ${row.id}`, fromRow(row)]));
}
