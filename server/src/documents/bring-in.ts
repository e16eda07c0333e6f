import { basename } from 'node:path';
import { storableText } from '@stylet/core/bounds';
import { documentState, newId } from '@stylet/core/document';
import type { ImportedPage } from '@stylet/core/pdf';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { storeEntries } from '../find/entries';
import { checkFolder } from '../folders/store';
import { inParts } from '../sources/parts';
import { takePdf, type ComingPdf, type FileTools, type TakenPdf } from '../sources/take-pdf';
import { toRow } from './annotation-rows';
import { sheetFor } from './page-rows';

/** Makes a document of a PDF, in a folder or in none, and returns its id. Throws Problem for files that cannot be used. */
export async function bringIn(
  tools: FileTools,
  filename: string,
  coming: ComingPdf,
  folderId?: string,
): Promise<string> {
  const id = newId();
  await takePdf(tools, coming, (queries, taken) =>
    storeDocument(queries, id, filename, taken, folderId),
  );
  return id;
}

/** Stores a document of what has been taken in. */
export async function storeDocument(
  queries: Queries,
  id: string,
  filename: string,
  { original, working: { file, repair }, facts, parts }: TakenPdf,
  folderId?: string,
): Promise<void> {
  if (folderId !== undefined) await checkFolder(queries, folderId);
  const title = titleFrom(filename, facts.title);
  await queries.insert(documents).values({
    id,
    title,
    original: original.digest,
    working: file.digest,
    repair,
    notices: [...facts.notices],
    folderId,
  });
  await storeEntries(queries, id, documentState(title, []));
  // Pages come first: what is on them names them.
  for await (const part of parts()) {
    await storeDocumentPages(queries, id, file.digest, part.pages);
    const landmarkRows = part.landmarks.map((fields) => ({
      documentId: id,
      id: fields.id,
      fields,
    }));
    if (landmarkRows.length > 0) await queries.insert(landmarks).values(landmarkRows);
    const annotationRows = part.annotations.map((annotation) => toRow(id, annotation, 0));
    if (annotationRows.length > 0) await queries.insert(annotations).values(annotationRows);
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
  const rows = imported.map(({ index: sourceIndex, ...page }) => ({
    ...page,
    documentId,
    source,
    sourceIndex,
    ...sheetFor({ source, sourceIndex }),
  }));
  for (const part of inParts(rows)) await queries.insert(pages).values(part);
}

/** People know their files by the names they gave them; the title inside is often a leftover. */
export function titleFrom(filename: string, inside: string | undefined): string {
  const name = basename(filename)
    .replace(/\.pdf$/i, '')
    .replace(/[_\s]+/g, ' ')
    .trim();
  return storableText(name || inside || 'Untitled', 300).trim() || 'Untitled';
}
