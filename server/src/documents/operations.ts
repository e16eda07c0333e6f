import type { OperationResult } from '@stylet/core/api';
import {
  applyAll,
  deedOf,
  documentState,
  findThing,
  placeOfDeed,
  type ConfirmedOperation,
  type DocumentState,
  type Effect,
  type Operation,
} from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { checkOwner, filesUnseen } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { insertMany } from '../db/insert-many';
import { annotations, documents, operations, pages } from '../db/schema';
import { writeEntries } from '../find/entries';
import { toldRevision } from '../live/notifications';
import { factsOf } from '../pictures/queries';
import { addAtOnce } from './adding';
import { fromRow, toRow } from './annotation-rows';
import { touchedLandmarks, touchesOutline, writeLandmarks } from './landmark-rows';
import { checkPages, touchedPages, writePages } from './page-rows';
import { pageColumns } from './queries';
import { touched, touchedIds } from './touched';

/** What has become of operations, and which of them were not known before, in order. */
export interface Performed {
  readonly result: OperationResult;
  readonly fresh: readonly ConfirmedOperation[];
}

/**
 * Carries out operations in one transaction and gives each the document's next revision. An
 * operation whose id is known already changes nothing and gets its first revision again.
 * Throws Problem `document-not-found` or `operation-invalid`; then none is carried out.
 */
export async function perform(
  database: Database,
  identity: Identity,
  documentId: string,
  batch: readonly Operation[],
): Promise<Performed> {
  const added = await addAtOnce(database, identity, documentId, batch);
  if (!added) return database.transaction((all) => performWithin(all, identity, documentId, batch));
  const revisions = new Map(added.map(({ operation, revision }) => [operation.id, revision]));
  const { revision } = added[added.length - 1];
  return { result: resultOf(revision, batch, revisions, []), fresh: added };
}

/** The same within a transaction that does more. */
export async function performWithin(
  transaction: Queries,
  identity: Identity,
  documentId: string,
  batch: readonly Operation[],
): Promise<Performed> {
  const [document] = await transaction
    .select({ title: documents.title, revision: documents.revision, owner: documents.owner })
    .from(documents)
    .where(eq(documents.id, documentId))
    .for('update');
  checkOwner(identity, 'document', documentId, document?.owner, 'comment');
  const known = await knownRevisions(transaction, documentId, batch);
  const fresh = firstOfEach(batch.filter((operation) => !known.has(operation.id)));
  if (fresh.length === 0)
    return { result: resultOf(document.revision, batch, known, []), fresh: [] };
  const named = await check(transaction, documentId, fresh);
  await checkPictures(transaction, identity, fresh);
  await checkPages(transaction, identity, documentId, fresh);

  const before = await touchedState(transaction, documentId, document.title, fresh);
  const after = applyAll(
    before,
    fresh.map(({ effect }) => effect),
  );
  let { revision } = document;
  for (const operation of fresh) known.set(operation.id, ++revision);
  // Pages first: annotations refer to them by foreign key.
  await writePages(transaction, documentId, fresh, known, before, after);
  await writeDifference(transaction, { id: documentId, revision }, fresh, before, after);
  await writeLandmarks(transaction, documentId, fresh, before, after);
  await writeEntries(transaction, documentId, before, after);
  await insertMany(
    transaction,
    operations,
    fresh.map(({ id, author, at, baseRevision, effect }) => ({
      id,
      documentId,
      revision: known.get(id)!,
      baseRevision,
      author,
      at: new Date(at),
      effect,
    })),
  );
  await transaction
    .update(documents)
    .set({
      revision,
      title: after.title,
      modified: sql`now()`,
      ...(touchesOutline(before, after) ? { outlineChanged: true } : {}),
    })
    .where(eq(documents.id, documentId))
    .returning({ told: toldRevision(documentId, revision) });
  const removed = named.some((page) => page.removed)
    ? await writtenOnRemoved(transaction, documentId, fresh, known)
    : [];
  return {
    result: resultOf(revision, batch, known, removed),
    fresh: fresh.map((operation) => ({ operation, revision: known.get(operation.id)! })),
  };
}

/** The pages that were written on after they had been removed. */
async function writtenOnRemoved(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
  revisions: ReadonlyMap<string, number>,
): Promise<OperationResult['removedPages']> {
  const written = new Map<string, number>();
  for (const { id, effect } of fresh)
    if (effect.type === 'annotation.add' || effect.type === 'annotation.change')
      written.set(pageOf(effect)!, revisions.get(id)!);
  if (written.size === 0) return [];
  const gone = await queries
    .select({ page: pageColumns, at: pages.removedAt, by: pages.removedBy })
    .from(pages)
    .where(
      and(
        eq(pages.documentId, documentId),
        eq(pages.removed, true),
        inArray(pages.id, [...written.keys()]),
      ),
    );
  return gone.flatMap(({ page, at, by }) =>
    at !== null && by !== null && at < written.get(page.id)! ? [{ page, by }] : [],
  );
}

async function knownRevisions(
  queries: Queries,
  documentId: string,
  batch: readonly Operation[],
): Promise<Map<string, number>> {
  const rows = await queries
    .select({
      id: operations.id,
      documentId: operations.documentId,
      revision: operations.revision,
    })
    .from(operations)
    .where(
      inArray(
        operations.id,
        batch.map((operation) => operation.id),
      ),
    );
  const stray = rows.find((row) => row.documentId !== documentId);
  if (stray)
    throw new Problem('operation-invalid', `Operation ${stray.id} belongs to another document.`);
  return new Map(rows.map((row) => [row.id, row.revision]));
}

function firstOfEach(batch: readonly Operation[]): Operation[] {
  return [...new Map([...batch].reverse().map((o) => [o.id, o])).values()].reverse();
}

/** Throws Problem `operation-invalid` for what names another document, or a page that is not there; the pages named. */
async function check(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
): Promise<readonly { readonly id: string; readonly removed: boolean }[]> {
  const stray = fresh.find((operation) => operation.documentId !== documentId);
  if (stray)
    throw new Problem('operation-invalid', `Operation ${stray.id} names another document.`);
  const named = [...new Set(fresh.flatMap((operation) => pageOf(operation.effect) ?? []))];
  if (named.length === 0) return [];
  const rows = await queries
    .select({ id: pages.id, removed: pages.removed })
    .from(pages)
    .where(and(eq(pages.documentId, documentId), inArray(pages.id, named)));
  const coming = fresh.flatMap(({ effect }) => (effect.type === 'page.add' ? effect.page.id : []));
  const there = new Set([...rows.map((row) => row.id), ...coming]);
  const missing = named.find((id) => !there.has(id));
  if (missing) throw new Problem('operation-invalid', `The document has no page ${missing}.`);
  return rows;
}

/** Throws Problem `picture-unknown` for a picture whose file has not come. */
async function checkPictures(
  queries: Queries,
  identity: Identity,
  fresh: readonly Operation[],
): Promise<void> {
  const digests = fresh.flatMap(({ effect }) =>
    effect.type === 'annotation.add' && effect.annotation.kind === 'picture'
      ? [effect.annotation.digest]
      : [],
  );
  if (digests.length === 0) return;
  const known = new Set((await factsOf(queries, digests)).map(({ digest }) => digest));
  const unseen = await filesUnseen(queries, identity, digests);
  const missing = digests.find((digest) => !known.has(digest) || unseen.includes(digest));
  if (missing) throw new Problem('picture-unknown', `There is none with the digest ${missing}.`);
}

/** Just as much of the document as the operations are about. */
async function touchedState(
  queries: Queries,
  documentId: string,
  title: string,
  fresh: readonly Operation[],
): Promise<DocumentState> {
  const ids = touchedIds(fresh, 'annotation');
  const marks = await touchedLandmarks(queries, documentId, fresh);
  const sheets = await touchedPages(queries, documentId, fresh);
  if (ids.length === 0) return documentState(title, [], marks, sheets);
  const rows = await queries
    .select({ fields: annotations.fields, samples: annotations.samples })
    .from(annotations)
    .where(and(eq(annotations.documentId, documentId), inArray(annotations.id, ids)));
  return documentState(title, rows.map(fromRow), marks, sheets);
}

async function writeDifference(
  queries: Queries,
  document: { readonly id: string; readonly revision: number },
  fresh: readonly Operation[],
  before: DocumentState,
  after: DocumentState,
): Promise<void> {
  const places = touched(fresh, 'annotation');
  const gone: string[] = [];
  const rows: ReturnType<typeof toRow>[] = [];
  for (const where of places) {
    const now = findThing(after, 'annotation', where);
    if (now === findThing(before, 'annotation', where)) continue;
    if (now) rows.push(toRow(document.id, now, document.revision));
    else gone.push(where.id);
  }
  if (gone.length > 0)
    await queries
      .delete(annotations)
      .where(and(eq(annotations.documentId, document.id), inArray(annotations.id, gone)));
  await insertMany(queries, annotations, rows, REPLACING);
}

/** An annotation that is there already becomes what is written. */
const REPLACING = sql`on conflict (document_id, id) do update set
  page_id = excluded.page_id, fields = excluded.fields, samples = excluded.samples, revision = excluded.revision`;

/** The page that an effect names, which has to be there. */
function pageOf(effect: Effect): string | undefined {
  const deed = deedOf(effect);
  switch (deed?.entity) {
    case 'annotation':
      return placeOfDeed(deed).pageId;
    case 'landmark':
      if (deed.verb === 'remove') return undefined;
      return deed.verb === 'add' ? deed.thing.place?.pageId : deed.fields.place?.pageId;
    case 'page':
      return deed.verb === 'add' ? undefined : deed.where.id;
    case undefined:
      return undefined;
  }
}

function resultOf(
  revision: number,
  batch: readonly Operation[],
  revisions: ReadonlyMap<string, number>,
  removedPages: OperationResult['removedPages'],
): OperationResult {
  return {
    revision,
    operations: batch.map(({ id }) => ({ id, revision: revisions.get(id)! })),
    removedPages,
  };
}
