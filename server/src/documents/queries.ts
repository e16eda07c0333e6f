import type { DocumentSummary, StyletDocument } from '@stylet/core/api';
import { byOrder, type Annotation, type DocumentPage, type Landmark } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { and, desc, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages, sources } from '../db/schema';
import { companionOf } from '../companions/store';
import { placeIn } from '../reading/store';
import { fromRow } from './annotation-rows';

export const pageColumns = {
  id: pages.id,
  order: pages.order,
  label: pages.label,
  width: pages.width,
  height: pages.height,
  rotation: pages.rotation,
  source: pages.source,
  sourceIndex: pages.sourceIndex,
  hasMarks: pages.hasMarks,
  beside: pages.beside,
};

export const summaryColumns = {
  id: documents.id,
  title: documents.title,
  size: sources.size,
  digest: documents.original,
  created: documents.created,
  modified: documents.modified,
  revision: documents.revision,
  repair: documents.repair,
  notices: documents.notices,
  folderId: documents.folderId,
  trashed: documents.trashed,
  pageCount: documents.pageCount,
  annotationCount: documents.annotationCount,
};

type SummaryRow = Omit<DocumentSummary, 'created' | 'modified' | 'trashed'> & {
  created: Date;
  modified: Date;
  trashed: Date | null;
};

export const toSummary = (row: SummaryRow): DocumentSummary => ({
  ...row,
  created: row.created.toISOString(),
  modified: row.modified.toISOString(),
  trashed: row.trashed?.toISOString() ?? null,
});

const summaries = (queries: Queries) =>
  queries
    .select(summaryColumns)
    .from(documents)
    .innerJoin(sources, eq(sources.digest, documents.original));

/** The documents in the trash, those put there last first. */
export async function listTrash(queries: Queries, identity: Identity): Promise<DocumentSummary[]> {
  const rows = await summaries(queries)
    .where(and(isSeenBy(identity, documents.owner), isNotNull(documents.trashed)))
    .orderBy(desc(documents.trashed));
  return rows.map(toSummary);
}

/** One document's summary. Throws Problem `document-not-found`. */
export async function summaryOf(queries: Queries, id: string): Promise<DocumentSummary> {
  const [row] = await summaries(queries).where(eq(documents.id, id));
  if (!row) throw notFound(id);
  return toSummary(row);
}

/** A whole document without its annotations. Throws Problem `document-not-found`. */
export async function readDocument(
  queries: Queries,
  identity: Identity,
  id: string,
): Promise<StyletDocument> {
  const summary = await summaryOf(queries, id);
  const own = await sourceOf(queries, id, 'working');
  return {
    ...summary,
    source: own.digest,
    isTyped: own.isTyped,
    companion: await companionOf(queries, identity, id),
    landmarks: await readLandmarks(queries, id),
    place: await placeIn(queries, identity, id),
    pages: await readPages(queries, id),
  };
}

/** The pages of a document in order, without those that were removed. */
export async function readPages(queries: Queries, id: string): Promise<DocumentPage[]> {
  const rows = await queries
    .select(pageColumns)
    .from(pages)
    .where(and(eq(pages.documentId, id), eq(pages.removed, false)));
  // PostgreSQL would sort by the rules of a language.
  return rows.sort(byOrder);
}

/** The outline's entries, the bookmarks and the keywords of a document. */
export async function readLandmarks(queries: Queries, id: string): Promise<Landmark[]> {
  const rows = await queries
    .select({ fields: landmarks.fields })
    .from(landmarks)
    .where(eq(landmarks.documentId, id));
  return rows.map(({ fields }) => fields);
}

/** All annotations of a document, or those on some pages. */
export async function readAnnotations(
  queries: Queries,
  id: string,
  pageIds?: readonly string[],
): Promise<Annotation[]> {
  const on = pageIds && inArray(annotations.pageId, [...pageIds]);
  const rows = await queries
    .select({ fields: annotations.fields, samples: annotations.samples })
    .from(annotations)
    .where(and(eq(annotations.documentId, id), on));
  return rows.map(fromRow);
}

/** Digest and size of a document's file, and whether it has typed pages: as it came, as it was worked on first, or that which exports begin with. */
export async function sourceOf(
  queries: Queries,
  id: string,
  which: 'original' | 'working' | 'exported',
): Promise<{ digest: string; size: number; title: string; isTyped: boolean }> {
  const file =
    which === 'exported'
      ? sql`coalesce(${documents.typed}, ${documents.working})`
      : documents[which];
  const [row] = await queries
    .select({
      digest: sources.digest,
      size: sources.size,
      title: documents.title,
      isTyped: sql<boolean>`${documents.typed} is not null`,
    })
    .from(documents)
    .innerJoin(sources, eq(sources.digest, file))
    .where(eq(documents.id, id));
  if (!row) throw notFound(id);
  return row;
}

/** Digests and sizes of the files of a document's pages, and of its own. Throws Problem `document-not-found`. */
export async function sourcesOf(
  queries: Queries,
  id: string,
): Promise<{ title: string; sources: { digest: string; size: number }[] }> {
  const own = await sourceOf(queries, id, 'exported');
  const others = await queries
    .selectDistinct({ digest: sources.digest, size: sources.size })
    .from(pages)
    .innerJoin(sources, eq(sources.digest, pages.source))
    .where(and(eq(pages.documentId, id), eq(pages.removed, false), ne(pages.source, own.digest)));
  return { title: own.title, sources: [{ digest: own.digest, size: own.size }, ...others] };
}

export const notFound = (id: string): Problem =>
  new Problem('document-not-found', `No document has the id ${id}.`);
