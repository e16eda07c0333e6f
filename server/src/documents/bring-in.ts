import { basename } from 'node:path';
import type { Readable } from 'node:stream';
import { newId } from '@stylet/core/document';
import type { Queries } from '../db/database';
import { annotations, documents, landmarks, pages } from '../db/schema';
import { withPictures } from '../pictures/recover';
import type { PictureTools } from '../pictures/store';
import { openForWork, type WorkingFile } from '../pdf/repair';
import { storeFile } from '../sources/chunks';
import type { SpooledFile } from '../sources/spool';
import { toRow } from './annotation-rows';

/** Rows in one INSERT: PostgreSQL takes at most 65,535 parameters. */
const ROWS_AT_ONCE = 2000;

/**
 * Makes a document of an uploaded PDF and returns its id. The bytes go through a file on disk, so
 * memory does not grow with them. Throws Problem for files that cannot be used.
 */
export async function bringIn(
  tools: PictureTools,
  filename: string,
  stream: Readable & { truncated?: boolean },
  checkComplete: () => void,
): Promise<string> {
  const { database, pool, spool } = tools;
  const original = await spool.take(stream);
  let working: WorkingFile | undefined;
  try {
    checkComplete();
    working = await openForWork(original, pool, spool, new Date().toISOString());
    const { path } = working.file;
    const found = await withPictures(tools, path, working.pdf.annotations);
    const made: WorkingFile = { ...working, pdf: { ...working.pdf, annotations: found } };
    const id = newId();
    await database.transaction(async (transaction) => {
      await storeFile(transaction, original);
      if (made.file !== original) await storeFile(transaction, made.file);
      await storeDocument(transaction, id, filename, original, made);
    });
    await spool.keep(made.file);
    return id;
  } finally {
    await spool.discard(original.path);
    if (working) await spool.discard(working.file.path);
  }
}

async function storeDocument(
  queries: Queries,
  id: string,
  filename: string,
  original: SpooledFile,
  { file, pdf, repair }: WorkingFile,
): Promise<void> {
  await queries.insert(documents).values({
    id,
    title: titleFrom(filename, pdf.title),
    original: original.digest,
    working: file.digest,
    repair,
  });
  const pageRows = pdf.pages.map(({ index, ...page }) => ({
    ...page,
    documentId: id,
    sourceIndex: index,
  }));
  for (const rows of inParts(pageRows)) await queries.insert(pages).values(rows);
  const landmarkRows = pdf.landmarks.map((fields) => ({ documentId: id, id: fields.id, fields }));
  for (const rows of inParts(landmarkRows)) await queries.insert(landmarks).values(rows);
  const annotationRows = pdf.annotations.map((annotation) => toRow(id, annotation, 0));
  for (const rows of inParts(annotationRows)) await queries.insert(annotations).values(rows);
}

/** People know their files by the names they gave them; the title inside is often a leftover. */
function titleFrom(filename: string, inside: string | undefined): string {
  const name = basename(filename)
    .replace(/\.pdf$/i, '')
    .replace(/[_\s]+/g, ' ')
    .trim();
  return (name || inside || 'Untitled').slice(0, 300);
}

function* inParts<T>(rows: readonly T[]): Generator<T[]> {
  for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) yield rows.slice(i, i + ROWS_AT_ONCE);
}
