import type { Readable } from 'node:stream';
import type { PictureFacts } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { eq, inArray } from 'drizzle-orm';
import type { Database, Queries } from '../db/database';
import { pictures, sources } from '../db/schema';
import type { PdfPool } from '../pdf/pool';
import { storeFile } from '../sources/chunks';
import type { Spool, SpooledFile } from '../sources/spool';
import { inspect, type Inspected } from './inspect';

export interface PictureTools {
  readonly database: Database;
  readonly pool: PdfPool;
  readonly spool: Spool;
}

/** Takes in a picture's file that comes as a stream. Throws Problem for what cannot be used. */
export async function takePicture(
  tools: PictureTools,
  stream: Readable,
  checkComplete: () => void,
): Promise<PictureFacts> {
  const file = await tools.spool.take(stream);
  try {
    checkComplete();
    return await storePicture(tools, file);
  } finally {
    await tools.spool.discard(file.path);
  }
}

/** Stores a picture's file unless it is there already; what is known of it comes back. */
export async function storePicture(tools: PictureTools, file: SpooledFile): Promise<PictureFacts> {
  const { database, pool, spool } = tools;
  const known = await factsOf(database, [file.digest]);
  if (known.length > 0) return known[0];
  const found = await inspect(file, spool, pool);
  try {
    await database.transaction((transaction) => insert(transaction, file, found));
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

/** What is known of pictures; those that are not here are left out. */
export async function factsOf(
  queries: Queries,
  digests: readonly string[],
): Promise<PictureFacts[]> {
  const rows = await queries
    .select()
    .from(pictures)
    .where(inArray(pictures.digest, [...digests]));
  return rows.map((row) => ({
    digest: row.digest,
    medium: mediumOf(row),
    width: row.width,
    height: row.height,
  }));
}

/** A picture's row, with the sizes of its files. Throws Problem `picture-not-found`. */
export async function findPicture(queries: Queries, digest: string) {
  const [found] = await queries
    .select({ picture: pictures, size: sources.size })
    .from(pictures)
    .innerJoin(sources, eq(sources.digest, pictures.digest))
    .where(eq(pictures.digest, digest));
  if (!found) throw new Problem('picture-not-found', `There is none with the digest ${digest}.`);
  return found;
}

/** The size of the PDF by which a picture is drawn, in bytes. */
export async function sizeOfPage(queries: Queries, digest: string): Promise<number> {
  const [{ size }] = await queries
    .select({ size: sources.size })
    .from(sources)
    .where(eq(sources.digest, digest));
  return size;
}

const mediumOf = ({ page }: { page?: unknown }): PictureFacts['medium'] =>
  page ? 'lines' : 'pixels';
