import type { PictureFacts } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { eq, inArray } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { pictures, sources } from '../db/schema';

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

/** Whether a picture is of pixels, or drawn by lines. */
export const mediumOf = ({ page }: { page?: unknown }): PictureFacts['medium'] =>
  page ? 'lines' : 'pixels';
