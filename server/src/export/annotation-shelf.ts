import {
  applyAll,
  documentState,
  noAnnotations,
  pagesInOrder,
  type DocumentState,
} from '@stylet/core/document';
import type { ExportLandmarks, ExportPage } from '@stylet/core/pdf';
import { eq, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { AT_ONCE, type Database, type Queries } from '../db/database';
import { operationsSince } from '../documents/operation-log';
import { notFound, readAnnotations, readLandmarks, readPages } from '../documents/queries';
import { documents } from '../db/schema';

/** A document as it is exported. */
export interface Shelved {
  readonly revision: number;
  /** The digest of the document's own file. */
  readonly own: string;
  readonly pages: readonly ExportPage[];
  readonly landmarks: ExportLandmarks;
}

export type ShelvedState = Pick<DocumentState, 'pages' | 'annotations' | 'landmarks'>;

interface Kept {
  readonly state: DocumentState;
  readonly shelved: Shelved;
}

/**
 * The documents exported last, with their annotations, so that the next export reads only what
 * was done since.
 */
export class AnnotationShelf {
  private readonly documents: LRUCache<string, Kept>;

  constructor(
    private readonly database: Database,
    most: number,
  ) {
    this.documents = new LRUCache({ max: most });
  }

  /** A document as it is now; the same one as before where nothing was done. Throws Problem `document-not-found`. */
  async documentOf(id: string): Promise<Shelved> {
    return (await this.broughtUp(id)).shelved;
  }

  /** What is in a document as it is now. Throws Problem `document-not-found`. */
  async stateOf(id: string): Promise<ShelvedState> {
    return (await this.broughtUp(id)).state;
  }

  private async broughtUp(id: string): Promise<Kept> {
    const before = this.documents.get(id);
    const now = await this.database.transaction(
      (queries) => bringUpToDate(queries, id, before),
      AT_ONCE,
    );
    this.documents.set(id, now);
    return now;
  }
}

async function bringUpToDate(
  queries: Queries,
  id: string,
  before: Kept | undefined,
): Promise<Kept> {
  const [document] = await queries
    .select({
      revision: documents.revision,
      own: sql<string>`coalesce(${documents.typed}, ${documents.working})`,
      isOutlineChanged: documents.outlineChanged,
    })
    .from(documents)
    .where(eq(documents.id, id));
  if (!document) throw notFound(id);
  const { revision, own, isOutlineChanged } = document;
  if (before?.shelved.revision === revision) return before;
  const state =
    (before && (await broughtOn(queries, id, before, revision))) ?? (await read(queries, id));
  return {
    state,
    shelved: {
      revision,
      own,
      landmarks: { landmarks: state.landmarks, isOutlineChanged },
      pages: pagesInOrder(state.pages).map(
        ({ id: pageId, source, sourceIndex, rotation, label }) => ({
          id: pageId,
          source,
          sourceIndex,
          rotation,
          label,
          annotations: state.annotations[pageId] ?? noAnnotations,
        }),
      ),
    },
  };
}

/** What was kept with what was done since; what nobody touched are the same objects. Undefined where that is too much. */
async function broughtOn(
  queries: Queries,
  id: string,
  { state, shelved }: Kept,
  revision: number,
): Promise<DocumentState | undefined> {
  const { operations: done } = await operationsSince(queries, id, shelved.revision);
  if (done.at(-1)?.revision !== revision) return undefined;
  return applyAll(
    state,
    done.map(({ operation }) => operation.effect),
  );
}

async function read(queries: Queries, id: string): Promise<DocumentState> {
  const [annotations, landmarks, pages] = [
    await readAnnotations(queries, id),
    await readLandmarks(queries, id),
    await readPages(queries, id),
  ];
  return documentState('', annotations, landmarks, pages);
}
