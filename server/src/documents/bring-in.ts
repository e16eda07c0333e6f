import { basename } from 'node:path';
import type { Readable } from 'node:stream';
import { documentState, newId } from '@stylet/core/document';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { storeEntries } from '../find/entries';
import { checkFolder } from '../folders/store';
import type { WorkingFile } from '../pdf/repair';
import { inParts } from '../sources/parts';
import type { SpooledFile } from '../sources/spool';
import { takePdf, type FileTools } from '../sources/take-pdf';
import { toRow } from './annotation-rows';
import { sheetFor } from './page-rows';

/** Makes a document of a PDF, in a folder or in none, and returns its id. Throws Problem for files that cannot be used. */
export async function bringIn(
  tools: FileTools,
  filename: string,
  stream: Readable,
  checkComplete: () => void,
  folderId?: string,
): Promise<string> {
  const id = newId();
  await takePdf(tools, stream, checkComplete, (queries, original, working) =>
    storeDocument(queries, id, filename, original, working, folderId),
  );
  return id;
}

export async function storeDocument(
  queries: Queries,
  id: string,
  filename: string,
  original: SpooledFile,
  { file, pdf, repair }: WorkingFile,
  folderId?: string,
): Promise<void> {
  if (folderId !== undefined) await checkFolder(queries, folderId);
  const title = titleFrom(filename, pdf.title);
  await queries.insert(documents).values({
    id,
    title,
    original: original.digest,
    working: file.digest,
    repair,
    folderId,
  });
  const pageRows = pdf.pages.map(({ index, ...page }) => ({
    ...page,
    documentId: id,
    source: file.digest,
    sourceIndex: index,
    ...sheetFor({ source: file.digest, sourceIndex: index }),
  }));
  for (const rows of inParts(pageRows)) await queries.insert(pages).values(rows);
  const landmarkRows = pdf.landmarks.map((fields) => ({ documentId: id, id: fields.id, fields }));
  for (const rows of inParts(landmarkRows)) await queries.insert(landmarks).values(rows);
  const annotationRows = pdf.annotations.map((annotation) => toRow(id, annotation, 0));
  for (const rows of inParts(annotationRows)) await queries.insert(annotations).values(rows);
  await storeEntries(queries, id, documentState(title, pdf.annotations, pdf.landmarks));
}

/** People know their files by the names they gave them; the title inside is often a leftover. */
export function titleFrom(filename: string, inside: string | undefined): string {
  const name = basename(filename)
    .replace(/\.pdf$/i, '')
    .replace(/[_\s]+/g, ' ')
    .trim();
  return (name || inside || 'Untitled').slice(0, 300);
}
