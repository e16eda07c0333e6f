import type { DocumentState, Landmark, Operation } from '@stylet/core/document';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { landmarks } from '../db/schema';
import { touchedIds } from './touched';

/** Whether the outline or the bookmarks, which stand in it, are different now. */
export function touchesOutline(before: DocumentState, after: DocumentState): boolean {
  const marks = ({ landmarks }: DocumentState): Landmark[] =>
    Object.values(landmarks).filter(({ kind }) => kind !== 'keyword');
  const [was, is] = [marks(before), new Set(marks(after))];
  return was.length !== is.size || was.some((landmark) => !is.has(landmark));
}

/** The landmarks that operations are about, as they are. */
export async function touchedLandmarks(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
): Promise<Landmark[]> {
  const ids = touchedIds(fresh, 'landmark');
  if (ids.length === 0) return [];
  const rows = await queries
    .select({ fields: landmarks.fields })
    .from(landmarks)
    .where(and(eq(landmarks.documentId, documentId), inArray(landmarks.id, ids)));
  return rows.map(({ fields }) => fields);
}

/** Writes what has become of the landmarks that operations are about. */
export async function writeLandmarks(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
  before: DocumentState,
  after: DocumentState,
): Promise<void> {
  const ids = touchedIds(fresh, 'landmark').filter(
    (id) => before.landmarks[id] !== after.landmarks[id],
  );
  const gone = ids.filter((id) => !after.landmarks[id]);
  const rows = ids.flatMap((id) => {
    const fields = after.landmarks[id];
    return fields ? [{ documentId, id, fields }] : [];
  });
  if (gone.length > 0)
    await queries
      .delete(landmarks)
      .where(and(eq(landmarks.documentId, documentId), inArray(landmarks.id, gone)));
  if (rows.length > 0)
    await queries
      .insert(landmarks)
      .values(rows)
      .onConflictDoUpdate({
        target: [landmarks.documentId, landmarks.id],
        set: { fields: sql`excluded.fields` },
      });
}
