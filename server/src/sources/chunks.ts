import { createReadStream } from 'node:fs';
import { Problem } from '@stylet/core/problems';
import { and, eq, sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { sourceChunks, sourcePages, sources } from '../db/schema';
import type { SpooledFile } from './spooled-file';

export const CHUNK = 1024 * 1024;

/** Stores a file's bytes, unless a file of the same digest is there already. */
export async function storeSource(
  queries: Queries,
  digest: string,
  size: number,
  bytes: AsyncIterable<Buffer>,
): Promise<void> {
  const added = await queries
    .insert(sources)
    .values({ digest, size })
    .onConflictDoNothing()
    .returning({ digest: sources.digest });
  if (added.length === 0) return;
  let sequence = 0;
  for await (const chunk of inChunks(bytes)) {
    await queries.insert(sourceChunks).values({ digest, sequence, bytes: chunk });
    sequence++;
  }
}

/** Stores a spooled file; see `storeSource`. */
export const storeFile = (queries: Queries, { digest, size, path }: SpooledFile): Promise<void> =>
  storeSource(queries, digest, size, createReadStream(path) as AsyncIterable<Buffer>);

/** A stored PDF that documents have pages of. Throws Problem `source-not-found`. */
export async function fileOf(
  queries: Queries,
  digest: string,
): Promise<{ digest: string; size: number; title: string }> {
  const [found] = await queries
    .select({ digest: sources.digest, size: sources.size })
    .from(sources)
    .innerJoin(sourcePages, eq(sourcePages.source, sources.digest))
    .where(eq(sources.digest, digest))
    .limit(1);
  if (!found) throw new Problem('source-not-found', `There is none with the digest ${digest}.`);
  return { ...found, title: 'Pages' };
}

/** The bytes from `start` to before `end` of a stored file, a row at a time. */
export async function* readSource(
  queries: Queries,
  digest: string,
  start: number,
  end: number,
): AsyncGenerator<Buffer> {
  const first = Math.floor(start / CHUNK);
  const last = Math.floor((end - 1) / CHUNK);
  for (let sequence = first; sequence <= last; sequence++) {
    const offset = sequence * CHUNK;
    const from = Math.max(0, start - offset);
    const length = Math.min(CHUNK, end - offset) - from;
    // substring counts from 1.
    const bytes = sql<Buffer>`substring(${sourceChunks.bytes} from ${from + 1} for ${length})`;
    const [row] = await queries
      .select({ bytes })
      .from(sourceChunks)
      .where(and(eq(sourceChunks.digest, digest), eq(sourceChunks.sequence, sequence)));
    if (!row) throw new Error(`chunk ${sequence} of source ${digest} is missing`);
    yield row.bytes;
  }
}

async function* inChunks(bytes: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let parts: Buffer[] = [];
  let held = 0;
  for await (let part of bytes) {
    while (held + part.length >= CHUNK) {
      const take = CHUNK - held;
      yield Buffer.concat([...parts, part.subarray(0, take)]);
      part = part.subarray(take);
      parts = [];
      held = 0;
    }
    parts.push(part);
    held += part.length;
  }
  if (held > 0) yield Buffer.concat(parts);
}
