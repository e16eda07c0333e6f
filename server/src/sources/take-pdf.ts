import type { Readable } from 'node:stream';
import type { Queries } from '../db/database';
import { sourcePages } from '../db/schema';
import type { Indexer } from '../indexing/indexer';
import type { Miniaturist } from '../miniatures/miniaturist';
import { queueIndexing } from '../indexing/store';
import { openForWork, type WorkingFile } from '../pdf/repair';
import { withPictures } from '../pictures/recover';
import type { PictureTools } from '../pictures/store';
import { storeFile } from './chunks';
import { inParts } from './parts';
import type { SpooledFile } from './spool';

export interface FileTools extends PictureTools {
  readonly indexer: Pick<Indexer, 'wake'>;
  readonly miniaturist: Pick<Miniaturist, 'wake'>;
}

/**
 * Takes in a PDF that comes as a stream, and stores it with what its pages are; `store` then does, in the
 * same transaction, what it was taken in for. The bytes go through a file on disk, so memory does not grow
 * with them. Throws Problem for files that cannot be used.
 */
export async function takePdf<T>(
  tools: FileTools,
  stream: Readable,
  checkComplete: () => void,
  store: (queries: Queries, original: SpooledFile, working: WorkingFile) => Promise<T>,
): Promise<T> {
  const { database, pool, spool } = tools;
  const original = await spool.take(stream);
  let working: WorkingFile | undefined;
  try {
    checkComplete();
    working = await openForWork(original, pool, spool, new Date().toISOString());
    const { path } = working.file;
    const found = await withPictures(tools, path, working.pdf.annotations);
    const made: WorkingFile = { ...working, pdf: { ...working.pdf, annotations: found } };
    const result = await database.transaction(async (transaction) => {
      await storeFile(transaction, original);
      if (made.file !== original) await storeFile(transaction, made.file);
      await storePages(transaction, made);
      await queueIndexing(transaction, made.file.digest, made.pdf.pages.length);
      return store(transaction, original, made);
    });
    await spool.keep(made.file);
    tools.indexer.wake();
    tools.miniaturist.wake();
    return result;
  } finally {
    await spool.discard(original.path);
    if (working) await spool.discard(working.file.path);
  }
}

async function storePages(queries: Queries, { file, pdf }: WorkingFile): Promise<void> {
  const rows = pdf.pages.map(({ index: sourceIndex, width, height, hasMarks }) => ({
    source: file.digest,
    sourceIndex,
    width,
    height,
    hasMarks,
  }));
  for (const part of inParts(rows))
    await queries.insert(sourcePages).values(part).onConflictDoNothing();
}
