import {
  applyAll,
  documentState,
  type Annotation,
  type ConfirmedOperation,
  type Operation,
} from '@stylet/core/document';
import { namedAmong } from '@stylet/core/find';
import { sql } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import type { Database } from '../db/database';
import { asPlain } from '../db/insert-many';
import { toRow } from './annotation-rows';

/**
 * Carries out operations that add annotations, and nothing else, in one statement: what people do most is write. Undefined
 * where there is more to it, and nothing has been done. Throws Problem `ink-samples-invalid`.
 */
export async function addAtOnce(
  database: Database,
  { account }: Identity,
  documentId: string,
  batch: readonly Operation[],
): Promise<readonly ConfirmedOperation[] | undefined> {
  const coming = addedBy(documentId, batch);
  if (!coming) return undefined;
  const operations = batch.map(({ id, baseRevision, author, at, effect }, i) => ({
    id,
    place: i + 1,
    base_revision: baseRevision,
    author,
    at,
    effect,
  }));
  const rows = coming.map((annotation) => {
    const { id, pageId, fields, samples } = toRow(documentId, annotation, 0);
    return { id, page_id: pageId, fields, samples: asPlain(samples) };
  });
  const { rows: told } = await database.execute<{ before: number | null }>(sql`
    select add_annotations(
      ${documentId}, ${account}, ${JSON.stringify(operations)}, ${JSON.stringify(rows)}
    ) as before`);
  const [{ before }] = told;
  if (before === null) return undefined;
  return batch.map((operation, i) => ({ operation, revision: before + 1 + i }));
}

/** The annotations that operations add, if that is all they do and each can be written as it is. */
function addedBy(documentId: string, batch: readonly Operation[]): Annotation[] | undefined {
  const isPlain = batch.every(
    ({ documentId: named, effect }) =>
      named === documentId &&
      effect.type === 'annotation.add' &&
      // Its file has to be there.
      effect.annotation.kind !== 'picture',
  );
  if (!isPlain || batch.length === 0 || new Set(batch.map(({ id }) => id)).size < batch.length)
    return undefined;
  const after = applyAll(
    documentState('', []),
    batch.map(({ effect }) => effect),
  );
  const added = Object.values(after.annotations).flatMap((page) => Object.values(page));
  // Of those that can be found there is more to be written.
  return added.length === batch.length && namedAmong([], added).length === 0 ? added : undefined;
}
