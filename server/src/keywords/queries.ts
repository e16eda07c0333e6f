import type { HungKeyword } from '@stylet/core/api';
import type { Keyword } from '@stylet/core/document';
import { asc, eq, inArray, sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { fromRow } from '../documents/annotation-rows';

/** The keywords of all documents, by document and page. */
export async function listKeywords(queries: Queries): Promise<HungKeyword[]> {
  const rows = await queries
    .select({
      fields: landmarks.fields,
      documentId: documents.id,
      title: documents.title,
      label: pages.label,
    })
    .from(landmarks)
    .innerJoin(documents, eq(documents.id, landmarks.documentId))
    .innerJoin(pages, eq(pages.id, sql`(${landmarks.fields} -> 'place' ->> 'pageId')::uuid`))
    .where(eq(sql`${landmarks.fields} ->> 'kind'`, 'keyword'))
    .orderBy(asc(documents.title), asc(pages.position));
  const keywords = rows.map((row) => ({ ...row, fields: row.fields as Keyword }));
  const faces = await facesOf(
    queries,
    keywords.flatMap(({ fields }) => fields.annotationIds ?? []),
  );
  return keywords.map(({ fields, ...where }) => ({
    ...where,
    id: fields.id,
    word: fields.word,
    place: fields.place,
    face: (fields.annotationIds ?? []).flatMap(
      (id) => faces.get(`${where.documentId} ${id}`) ?? [],
    ),
  }));
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
