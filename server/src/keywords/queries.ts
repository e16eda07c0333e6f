import type { HungKeyword } from '@stylet/core/api';
import { documentState, pagesInOrder, type Keyword } from '@stylet/core/document';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks } from '../db/schema';
import { fromRow } from '../documents/annotation-rows';
import { readPages } from '../documents/queries';

/** The keywords of all documents, by document and page. */
export async function listKeywords(queries: Queries): Promise<HungKeyword[]> {
  const rows = await queries
    .select({
      fields: landmarks.fields,
      documentId: documents.id,
      title: documents.title,
    })
    .from(landmarks)
    .innerJoin(documents, eq(documents.id, landmarks.documentId))
    .where(and(eq(sql`${landmarks.fields} ->> 'kind'`, 'keyword'), isNull(documents.trashed)))
    .orderBy(asc(documents.title), asc(documents.id));
  const pages = await pagesOf(queries, [...new Set(rows.map(({ documentId }) => documentId))]);
  const keywords = rows
    .flatMap((row) => {
      const fields = row.fields as Keyword;
      const page = pages.get(fields.place.pageId);
      return page ? [{ ...row, ...page, fields }] : [];
    })
    // Stable: by document as they come.
    .sort((a, b) => (a.documentId === b.documentId ? a.at - b.at : 0));
  const faces = await facesOf(
    queries,
    keywords.flatMap(({ fields }) => fields.annotationIds ?? []),
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

/** The pages of documents by their ids: where each stands, and what it is called. */
async function pagesOf(
  queries: Queries,
  documentIds: readonly string[],
): Promise<Map<string, { readonly at: number; readonly label: string }>> {
  const found = new Map<string, { at: number; label: string }>();
  for (const id of documentIds) {
    const { pages } = documentState('', [], [], await readPages(queries, id));
    pagesInOrder(pages).forEach((page, at) => found.set(page.id, { at, label: page.label }));
  }
  return found;
}

/** Annotations by their documents and ids. */
async function facesOf(
  queries: Queries,
  ids: readonly string[],
): Promise<Map<string, ReturnType<typeof fromRow>>> {
  if (ids.length === 0) return new Map();
  const rows = await queries
    .select()
    .from(annotations)
    .where(inArray(annotations.id, [...new Set(ids)]));
  return new Map(rows.map((row) => [`${row.documentId} ${row.id}`, fromRow(row)]));
}
