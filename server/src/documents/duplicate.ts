import { documentState, newId, type Annotation, type Landmark } from '@stylet/core/document';
import { eq } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import type { Database } from '../db/database';
import { insertMany } from '../db/insert-many';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { storeEntries } from '../find/entries';
import { notFound } from './queries';

/**
 * Copies a document with its pages, all that is on them and all that leads to them; the copy's id. What refers to each
 * other in it does so in the copy. Throws Problem `document-not-found`.
 */
export async function duplicate(
  database: Database,
  { account }: Identity,
  id: string,
): Promise<string> {
  const copy = newId();
  await database.transaction(
    async (transaction) => {
      const [document] = await transaction.select().from(documents).where(eq(documents.id, id));
      if (!document) throw notFound(id);
      const now = new Date();
      const title = `${document.title.slice(0, 293)} (copy)`;
      await transaction.insert(documents).values({
        ...document,
        id: copy,
        owner: account,
        title,
        revision: 0,
        // Counted as the rows come.
        pageCount: 0,
        annotationCount: 0,
        created: now,
        modified: now,
        trashed: null,
      });
      const [pageRows, annotationRows, landmarkRows] = [
        await transaction.select().from(pages).where(eq(pages.documentId, id)),
        await transaction.select().from(annotations).where(eq(annotations.documentId, id)),
        await transaction.select().from(landmarks).where(eq(landmarks.documentId, id)),
      ];
      const ids = new Map([
        [id, copy],
        ...[...pageRows, ...annotationRows, ...landmarkRows].map((row): [string, string] => [
          row.id,
          newId(),
        ]),
      ]);
      const copied = <T>(value: T): T => renamed(value, ids) as T;
      const rows = {
        pages: pageRows.map((row) => copied(row)),
        annotations: annotationRows.map((row) => ({ ...copied(row), revision: 0 })),
        landmarks: landmarkRows.map((row) => copied(row)),
      };
      await insertMany(transaction, pages, rows.pages);
      await insertMany(transaction, annotations, rows.annotations);
      await insertMany(transaction, landmarks, rows.landmarks);
      const state = documentState(
        title,
        rows.annotations.map(({ fields }) => fields as Annotation),
        rows.landmarks.map(({ fields }): Landmark => fields),
      );
      await storeEntries(transaction, copy, state);
    },
    { isolationLevel: 'repeatable read' },
  );
  return copy;
}

/** A value with all that is named by an old id named by its new one. */
function renamed(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value;
  if (Array.isArray(value)) return value.map((item) => renamed(item, ids));
  if (
    typeof value === 'object' &&
    value !== null &&
    Object.getPrototypeOf(value) === Object.prototype
  )
    return Object.fromEntries(
      Object.entries(value).map(([key, item]) => [key, renamed(item, ids)]),
    );
  return value;
}
