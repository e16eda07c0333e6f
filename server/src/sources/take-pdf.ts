import type { Readable } from 'node:stream';
import type { Annotation, Landmark } from '@stylet/core/document';
import type { ImportedPage } from '@stylet/core/pdf';
import { sql } from 'drizzle-orm';
import { ownFiles } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { insertMany } from '../db/insert-many';
import { sourcePages } from '../db/schema';
import type { Indexer } from '../indexing/indexer';
import type { Miniaturist } from '../miniatures/miniaturist';
import { queueIndexing } from '../indexing/store';
import { openForWork, type WorkingFile } from '../pdf/repair';
import { withPictures, type FoundPictures } from '../pictures/recover';
import type { PictureTools } from '../pictures/store';
import { storeFile } from './chunks';
import { readParts, type ImportedFacts } from './imported';
import type { SpooledFile } from './spooled-file';

export interface FileTools extends PictureTools {
  readonly indexer: Pick<Indexer, 'wake'>;
  readonly miniaturist: Pick<Miniaturist, 'wake'>;
}

/** A PDF that comes as a stream. */
export interface ComingPdf {
  /** The document it is brought in for, whose id gives those of what is in it; any where it comes for none. */
  readonly documentId: string;
  readonly stream: Readable;
  /** Throws when not all of it came. */
  readonly checkComplete: () => void;
  readonly password?: string | undefined;
  /** Aborted when whoever sends it has gone. */
  readonly awaited?: AbortSignal | undefined;
}

/** A PDF that has been taken in: what is known of it, and what was read of it, part by part. */
export interface TakenPdf {
  readonly original: SpooledFile;
  readonly working: Pick<WorkingFile, 'file' | 'repair'>;
  readonly facts: ImportedFacts;
  readonly parts: () => AsyncGenerator<TakenPart>;
}

export interface TakenPart {
  readonly pages: readonly ImportedPage[];
  readonly landmarks: readonly Landmark[];
  readonly annotations: readonly Annotation[];
}

/**
 * Takes in a PDF that comes as a stream, and stores it with what its pages are; `store` then does, in the same
 * transaction, what it was taken in for. Bytes and what is read of them go through files on disk, so memory does not
 * grow with them. Throws Problem for files that cannot be used.
 */
export async function takePdf<T>(
  tools: FileTools,
  identity: Identity,
  { documentId, stream, checkComplete, password, awaited }: ComingPdf,
  store: (queries: Queries, taken: TakenPdf) => Promise<T>,
): Promise<T> {
  const { database, pool } = tools;
  // What is written on the way lies below one folder, which goes whatever happens.
  return tools.spool.withWork(async (spool) => {
    const original = await spool.take(stream);
    checkComplete();
    const working = await openForWork(original, { documentId, pool, spool, password, awaited });
    const { file, parts } = working;
    const read = withProtection(working.facts, password);
    const pictures = await withPictures(tools, identity, file.path, read.pictures);
    // Without one of its pictures a text cannot be set again.
    const facts = { ...read, isTyped: read.isTyped && read.inText.every(pictures.has) };
    const taken: TakenPdf = { original, working, facts, parts: () => partsOf(parts, pictures) };
    const result = await database.transaction(async (transaction) => {
      await storeFile(transaction, original);
      if (file !== original) await storeFile(transaction, file);
      await ownFiles(transaction, identity, [original.digest, file.digest]);
      for await (const { pages } of taken.parts())
        await storePages(transaction, file.digest, pages);
      await queueIndexing(transaction, file.digest, facts.pageCount);
      return store(transaction, taken);
    });
    await spool.keep(file);
    tools.indexer.wake();
    tools.miniaturist.wake();
    return result;
  });
}

const withProtection = (facts: ImportedFacts, password: string | undefined): ImportedFacts =>
  password === undefined
    ? facts
    : { ...facts, notices: [...facts.notices, { kind: 'protected', count: 1 }] };

async function* partsOf(path: string, pictures: FoundPictures): AsyncGenerator<TakenPart> {
  for await (const { pages = [], landmarks = [], annotations = [] } of readParts(path))
    yield { pages, landmarks, annotations: annotations.map(pictures.of) };
}

async function storePages(
  queries: Queries,
  source: string,
  pages: readonly ImportedPage[],
): Promise<void> {
  const rows = pages.map(({ index: sourceIndex, width, height, hasMarks }) => ({
    source,
    sourceIndex,
    width,
    height,
    hasMarks,
  }));
  await insertMany(queries, sourcePages, rows, sql`on conflict do nothing`);
}
