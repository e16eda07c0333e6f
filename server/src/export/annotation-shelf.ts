import { documentState, noAnnotations, pagesInOrder, type Annotation } from '@stylet/core/document';
import type { ExportLandmarks, ExportPage } from '@stylet/core/pdf';
import { and, eq, gt } from 'drizzle-orm';
import { AT_ONCE, type Database, type Queries } from '../db/database';
import { fromRow } from '../documents/annotation-rows';
import { notFound, readLandmarks, readPages } from '../documents/queries';
import { annotations, documents } from '../db/schema';

interface Shelved {
  readonly revision: number;
  /** The digest of the document's own file. */
  readonly own: string;
  readonly annotations: ReadonlyMap<string, Annotation>;
  readonly pages: readonly ExportPage[];
  readonly landmarks: ExportLandmarks;
}

/**
 * The documents exported last, with their annotations, so that the next export reads only what
 * changed since.
 */
export class AnnotationShelf {
  private readonly documents = new Map<string, Shelved>();

  constructor(
    private readonly database: Database,
    private readonly most: number,
  ) {}

  /** A document as it is now. Throws Problem `document-not-found`. */
  async documentOf(id: string): Promise<Pick<Shelved, 'own' | 'pages' | 'landmarks'>> {
    const before = this.documents.get(id);
    const now = await this.database.transaction(
      (queries) => bringUpToDate(queries, id, before),
      AT_ONCE,
    );
    this.documents.delete(id);
    if (this.documents.size >= this.most)
      this.documents.delete(this.documents.keys().next().value!);
    this.documents.set(id, now);
    return now;
  }
}

async function bringUpToDate(
  queries: Queries,
  id: string,
  before: Shelved | undefined,
): Promise<Shelved> {
  const [document] = await queries
    .select({
      revision: documents.revision,
      own: documents.working,
      isOutlineChanged: documents.outlineChanged,
    })
    .from(documents)
    .where(eq(documents.id, id));
  if (!document) throw notFound(id);
  if (before?.revision === document.revision) return before;
  const current = await annotationsNow(queries, id, before);
  const state = documentState('', current.values());
  const pages = documentState('', [], [], await readPages(queries, id)).pages;
  return {
    revision: document.revision,
    own: document.own,
    annotations: current,
    landmarks: {
      landmarks: documentState('', [], await readLandmarks(queries, id)).landmarks,
      isOutlineChanged: document.isOutlineChanged,
    },
    pages: pagesInOrder(pages).map(({ id: pageId, source, sourceIndex, rotation, label }) => ({
      id: pageId,
      source,
      sourceIndex,
      rotation,
      label,
      annotations: state.annotations[pageId] ?? noAnnotations,
    })),
  };
}

/** Those that did not change are the same objects as before. */
async function annotationsNow(
  queries: Queries,
  id: string,
  before: Shelved | undefined,
): Promise<Map<string, Annotation>> {
  const changed = await queries
    .select({ fields: annotations.fields, samples: annotations.samples })
    .from(annotations)
    .where(
      and(eq(annotations.documentId, id), gt(annotations.revision, before ? before.revision : -1)),
    );
  const current = new Map(before?.annotations);
  for (const row of changed) current.set(row.fields.id, fromRow(row));
  if (!before) return current;
  const there = await queries
    .select({ id: annotations.id })
    .from(annotations)
    .where(eq(annotations.documentId, id));
  const ids = new Set(there.map((row) => row.id));
  for (const known of current.keys()) if (!ids.has(known)) current.delete(known);
  return current;
}
