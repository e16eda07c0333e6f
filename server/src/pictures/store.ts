import type { Readable } from 'node:stream';
import type { PictureFacts } from '@stylet/core/api';
import { ownFiles } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { pictures } from '../db/schema';
import type { PdfPool } from '../pdf/pool';
import { storeFile } from '../sources/chunks';
import type { Spool } from '../sources/spool';
import type { SpooledFile } from '../sources/spooled-file';
import { inspect, type Inspected } from './inspect';
import { factsOf, mediumOf } from './queries';

export interface PictureTools {
  readonly database: Database;
  readonly pool: PdfPool;
  readonly spool: Spool;
}

/** Takes in a picture's file that comes as a stream. Throws Problem for what cannot be used. */
export async function takePicture(
  tools: PictureTools,
  identity: Identity,
  stream: Readable,
  checkComplete: () => void,
): Promise<PictureFacts> {
  const file = await tools.spool.take(stream);
  try {
    checkComplete();
    return await storePicture(tools, identity, file);
  } finally {
    await tools.spool.discard(file.path);
  }
}

/** Stores a picture's file unless it is there already; what is known of it comes back. */
export async function storePicture(
  tools: PictureTools,
  identity: Identity,
  file: SpooledFile,
): Promise<PictureFacts> {
  const { database, pool, spool } = tools;
  const known = await factsOf(database, [file.digest]);
  if (known.length > 0) {
    await ownFiles(database, identity, [file.digest]);
    return known[0];
  }
  const found = await inspect(file, spool, pool);
  try {
    await database.transaction(async (transaction) => {
      await insert(transaction, file, found);
      await ownFiles(transaction, identity, [file.digest]);
    });
  } finally {
    if (found.page && found.page !== file) await spool.discard(found.page.path);
  }
  return { digest: file.digest, medium: mediumOf(found), width: found.width, height: found.height };
}

async function insert(queries: Queries, file: SpooledFile, found: Inspected): Promise<void> {
  const { type, width, height, orientation, page } = found;
  await storeFile(queries, file);
  if (page && page !== file) await storeFile(queries, page);
  await queries
    .insert(pictures)
    .values({ digest: file.digest, type, width, height, orientation, page: page?.digest ?? null })
    .onConflictDoNothing();
}
