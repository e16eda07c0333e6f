import { titlesOf, type Naming } from '@stylet/core/api';
import { documentState, newId } from '@stylet/core/document';
import type { ImportedPage } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import { eq, sql } from 'drizzle-orm';
import { checkRight } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { insertMany } from '../db/insert-many';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { storeEntries } from '../find/entries';
import { checkFolder } from '../folders/store';
import { sheetsOf } from '../sources/sheets';
import { takePdf, type ComingPdf, type FileTools, type TakenPdf } from '../sources/take-pdf';
import { toRow } from './annotation-rows';

/** Where a document goes that comes, by what it is called, and its id if it has one already. */
export interface ComingTo {
  readonly id?: string | undefined;
  readonly folder?: string | undefined;
  readonly naming: Naming;
}

/**
 * Makes a document of a PDF; its id, and the name it could have as well. Sent once more with its id it is as it was. Throws
 * Problem for files that cannot be used, and `document-exists` for an id that another has.
 */
export async function bringIn(
  tools: FileTools,
  identity: Identity,
  filename: string,
  coming: Omit<ComingPdf, 'documentId'>,
  { id: given, folder, naming }: ComingTo,
): Promise<{ readonly id: string; readonly otherTitle: string | null }> {
  const id = given ?? newId();
  let otherTitle: string | null = null;
  await takePdf(tools, identity, { ...coming, documentId: id }, async (queries, taken) => {
    if (folder !== undefined) await checkRight(queries, identity, 'folder', folder, 'edit');
    const titles = titlesOf(filename, taken.facts.title, naming);
    otherTitle = titles.otherTitle;
    if (given !== undefined && (await hasCome(queries, identity, id, taken))) return;
    await storeDocument(queries, identity, id, titles.title, taken, folder);
  });
  return { id, otherTitle };
}

/**
 * Whether a document has come before: whoever sends it may not have heard so. Whoever asks at the same time waits. Throws
 * Problem `document-exists` where another has its id.
 */
export async function hasCome(
  queries: Queries,
  { account }: Identity,
  id: string,
  { original }: Pick<TakenPdf, 'original'>,
): Promise<boolean> {
  await queries.execute(sql`select pg_advisory_xact_lock(hashtextextended(${id}, 0))`);
  const [there] = await queries
    .select({ owner: documents.owner, original: documents.original })
    .from(documents)
    .where(eq(documents.id, id));
  if (there && (there.owner !== account || there.original !== original.digest))
    throw new Problem('document-exists', `Its id is ${id}.`);
  return there !== undefined;
}

/** Stores a document of what has been taken in. */
export async function storeDocument(
  queries: Queries,
  { account }: Identity,
  id: string,
  title: string,
  { original, working: { file, repair }, facts, parts }: TakenPdf,
  folderId?: string,
): Promise<void> {
  if (folderId !== undefined) await checkFolder(queries, folderId);
  await queries.insert(documents).values({
    id,
    owner: account,
    title,
    original: original.digest,
    working: file.digest,
    typed: facts.isTyped ? file.digest : null,
    repair,
    notices: [...facts.notices],
    folderId,
  });
  await storeEntries(queries, id, documentState(title, []));
  // Pages first: annotations refer to them by foreign key.
  for await (const part of parts()) {
    await storeDocumentPages(queries, id, file.digest, part.pages);
    const landmarkRows = part.landmarks.map((fields) => ({
      documentId: id,
      id: fields.id,
      fields,
    }));
    await insertMany(queries, landmarks, landmarkRows);
    const annotationRows = part.annotations.map((annotation) => toRow(id, annotation, 0));
    await insertMany(queries, annotations, annotationRows);
    await storeEntries(queries, id, documentState(title, part.annotations, part.landmarks));
  }
}

/** Stores the pages of a document, all of one file. */
export async function storeDocumentPages(
  queries: Queries,
  documentId: string,
  source: string,
  imported: readonly ImportedPage[],
): Promise<void> {
  const indices = imported.map(({ index }) => index).sort((a, b) => a - b);
  const sheets = await sheetsOf(queries, source, indices);
  const rows = imported.map(({ index: sourceIndex, ...page }) => ({
    ...page,
    documentId,
    source,
    sourceIndex,
    sheet: sheets.get(sourceIndex)!,
  }));
  await insertMany(queries, pages, rows);
}
