import { Problem } from '@stylet/core/problems';
import { and, eq, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database';
import { indexing, miniatureTrays } from '../db/schema';

/** Stores a tray, and that a file's pages before `to` are drawn, unless another server has drawn them meanwhile. */
export async function storeTray(
  database: Database,
  source: string,
  { tray, from, to, picture }: { tray: number; from: number; to: number; picture: Buffer },
): Promise<void> {
  await database.transaction(async (transaction) => {
    const advanced = await transaction
      .update(indexing)
      .set({ drawn: to, claimed: sql`now()` })
      .where(and(eq(indexing.source, source), eq(indexing.drawn, from)))
      .returning({ source: indexing.source });
    if (advanced.length > 0)
      await transaction.insert(miniatureTrays).values({ source, tray, picture });
  });
}

/** A file cannot be drawn: it is left alone. */
export async function giveUpDrawing(database: Database, source: string): Promise<void> {
  await database
    .update(indexing)
    .set({ drawn: indexing.pages, claimed: null })
    .where(eq(indexing.source, source));
}

/** A tray of a file, a WebP picture; undefined when it has not been drawn. Throws Problem `source-not-found`. */
export async function readTray(
  queries: Queries,
  source: string,
  tray: number,
): Promise<Buffer | undefined> {
  const [row] = await queries
    .select({ picture: miniatureTrays.picture })
    .from(indexing)
    .leftJoin(
      miniatureTrays,
      and(eq(miniatureTrays.source, indexing.source), eq(miniatureTrays.tray, tray)),
    )
    .where(eq(indexing.source, source));
  if (!row) throw new Problem('source-not-found', `There is none with the digest ${source}.`);
  return row.picture ?? undefined;
}
