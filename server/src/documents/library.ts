import type { LibraryPart, LibrarySorting, libraryQuerySchema } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import { and, asc, desc, eq, isNull, sql, type SQL } from 'drizzle-orm';
import { z } from 'zod';
import { checkRight, isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { documents, sources } from '../db/schema';
import { within } from '../folders/store';
import { summaryColumns, toSummary } from './queries';

/** An order: what stands first in it, as text that can be told back, and as what it is compared by. */
interface Order {
  readonly by: SQL;
  readonly told: SQL<string>;
  readonly from: (told: string) => SQL;
  readonly isDescending: boolean;
}

const title = sql`${documents.title} collate "natural"`;
const instant = (column: typeof documents.modified | typeof documents.created): Order => ({
  by: sql`${column}`,
  // Instants of JavaScript are coarser.
  told: sql<string>`extract(epoch from ${column})::text`,
  from: (told) => sql`to_timestamp(${told}::numeric)`,
  isDescending: true,
});

const orders: Record<LibrarySorting, Order> = {
  changed: instant(documents.modified),
  added: instant(documents.created),
  title: {
    by: title,
    told: sql<string>`${documents.title}`,
    from: (told) => sql`${told} collate "natural"`,
    isDescending: false,
  },
};

const cursorSchema = z.tuple([z.string().max(400), z.uuid()]);

/**
 * A part of the documents, but for those in the trash. Throws Problem `folder-not-found`, and `request-invalid`
 * for a place to go on from that was never told.
 */
export async function listDocuments(
  queries: Queries,
  identity: Identity,
  { folder, within: outer, title: words, sort, limit, after }: z.output<typeof libraryQuerySchema>,
): Promise<LibraryPart> {
  const { by, told, from, isDescending } = orders[sort];
  const conditions = [isSeenBy(identity, documents.owner), isNull(documents.trashed)];
  for (const asked of [folder, outer])
    if (asked !== undefined && asked !== 'none')
      await checkRight(queries, identity, 'folder', asked, 'see');
  if (folder === 'none') conditions.push(isNull(documents.folderId));
  else if (folder !== undefined) conditions.push(eq(documents.folderId, folder));
  if (outer !== undefined) {
    const inside = await within(queries, outer, 'down');
    conditions.push(sql`${documents.folderId} = any(${sql.param(inside)}::uuid[])`);
  }
  for (const word of (words ?? '').toLowerCase().split(/\s+/).filter(Boolean))
    conditions.push(sql`position(${word} in lower(${documents.title})) > 0`);
  if (after !== undefined) {
    const [value, id] = placeFrom(after);
    const later = isDescending ? sql`<` : sql`>`;
    conditions.push(sql`(${by}, ${documents.id}) ${later} (${from(value)}, ${id}::uuid)`);
  }
  const direction = isDescending ? desc : asc;
  const rows = await queries
    .select({ ...summaryColumns, told })
    .from(documents)
    .innerJoin(sources, eq(sources.digest, documents.original))
    .where(and(...conditions))
    .orderBy(direction(by), direction(documents.id))
    // One more tells whether there are more.
    .limit(limit + 1);
  const shown = rows.slice(0, limit);
  const last = shown.at(-1);
  return {
    documents: shown.map(({ told: _, ...row }) => toSummary(row)),
    next: rows.length > limit && last ? placeAt(last.told, last.id) : null,
  };
}

const placeAt = (value: string, id: string): string =>
  Buffer.from(JSON.stringify([value, id])).toString('base64url');

function placeFrom(told: string): [string, string] {
  try {
    return cursorSchema.parse(JSON.parse(Buffer.from(told, 'base64url').toString()));
  } catch {
    throw new Problem('request-invalid', '“after” is no place that was told.');
  }
}
