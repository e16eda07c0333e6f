import { Problem } from '@stylet/core/problems';
import {
  STAMP_BOUNDS,
  type Stamp,
  type StampChange,
  type StampList,
  type StampSheet,
} from '@stylet/core/stamps';
import { and, asc, eq, inArray, lt, sql } from 'drizzle-orm';
import { filesUnseen } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { pictures, stampSheets, stamps } from '../db/schema';
import { mediumOf } from '../pictures/queries';

/** How long what was removed is kept, for whoever wants it back. */
const KEPT = sql`now() - interval '30 days'`;

/** The sheets and stamps of an account, those it has removed left out. */
export async function listStamps(queries: Queries, { account }: Identity): Promise<StampList> {
  const sheets = await queries
    .select()
    .from(stampSheets)
    .where(and(eq(stampSheets.owner, account), sql`${stampSheets.removed} is null`))
    .orderBy(asc(stampSheets.order), asc(stampSheets.id));
  const rows = await queries
    .select({ stamp: stamps, picture: pictures })
    .from(stamps)
    .innerJoin(stampSheets, eq(stamps.sheet, stampSheets.id))
    .innerJoin(pictures, eq(stamps.digest, pictures.digest))
    .where(
      and(
        eq(stampSheets.owner, account),
        sql`${stampSheets.removed} is null and ${stamps.removed} is null`,
      ),
    )
    .orderBy(asc(stamps.order), asc(stamps.id));
  return {
    sheets: sheets.map(({ id, name, order }) => ({ id, name, order, removed: false })),
    stamps: rows.map(({ stamp, picture }) => ({
      id: stamp.id,
      sheet: stamp.sheet,
      name: stamp.name,
      order: stamp.order,
      digest: stamp.digest,
      medium: mediumOf(picture),
      width: picture.width,
      height: picture.height,
      size: stamp.size,
      ...(stamp.crop ? { crop: stamp.crop } : {}),
      favourite: stamp.favourite,
      removed: false,
    })),
  };
}

/**
 * Keeps sheets and stamps in place of what there was of them. Throws Problem `stamps-too-many`, `stamp-sheet-not-found`,
 * `picture-not-found`.
 */
export async function keepStamps(
  database: Database,
  identity: Identity,
  { sheets, stamps: changed }: StampChange,
): Promise<void> {
  await database.transaction(async (transaction) => {
    for (const sheet of sheets) await keepSheet(transaction, identity, sheet);
    if (changed.length > 0) {
      await checkSheets(transaction, identity, [...new Set(changed.map(({ sheet }) => sheet))]);
      const [unseen] = await filesUnseen(
        transaction,
        identity,
        changed.map(({ digest }) => digest),
      );
      if (unseen)
        throw new Problem('picture-not-found', `There is none with the digest ${unseen}.`);
      for (const stamp of changed) await keepStamp(transaction, identity, stamp);
    }
    await forgetRemoved(transaction, identity);
    await checkBounds(transaction, identity);
  });
}

async function keepSheet(
  queries: Queries,
  { account }: Identity,
  { id, name, order, removed }: StampSheet,
): Promise<void> {
  const values = { name, order, removed: removedAt(removed) };
  const kept = await queries
    .insert(stampSheets)
    .values({ id, owner: account, ...values })
    .onConflictDoUpdate({
      target: stampSheets.id,
      set: values,
      setWhere: eq(stampSheets.owner, account),
    })
    .returning({ id: stampSheets.id });
  if (kept.length === 0) throw sheetNotFound(id);
}

async function keepStamp(queries: Queries, { account }: Identity, stamp: Stamp): Promise<void> {
  const { id, sheet, name, order, digest, crop, size, favourite, removed } = stamp;
  const values = {
    sheet,
    name,
    order,
    digest,
    crop: crop ?? null,
    size,
    favourite,
    removed: removedAt(removed),
  };
  const isOwn = sql`exists (select 1 from ${stampSheets} s where s.id = ${stamps.sheet} and s.owner = ${account})`;
  const kept = await queries
    .insert(stamps)
    .values({ id, ...values })
    .onConflictDoUpdate({ target: stamps.id, set: values, setWhere: isOwn })
    .returning({ id: stamps.id });
  if (kept.length === 0) throw new Problem('stamp-not-found', `None has the id ${id}.`);
}

const removedAt = (isRemoved: boolean) => (isRemoved ? sql<Date>`now()` : null);

export const sheetNotFound = (id: string): Problem =>
  new Problem('stamp-sheet-not-found', `None has the id ${id}.`);

async function checkSheets(
  queries: Queries,
  { account }: Identity,
  ids: readonly string[],
): Promise<void> {
  const found = await queries
    .select({ id: stampSheets.id })
    .from(stampSheets)
    .where(and(inArray(stampSheets.id, [...ids]), eq(stampSheets.owner, account)));
  const missing = ids.find((id) => !found.some((sheet) => sheet.id === id));
  if (missing) throw sheetNotFound(missing);
}

async function forgetRemoved(queries: Queries, { account }: Identity): Promise<void> {
  const own = queries
    .select({ id: stampSheets.id })
    .from(stampSheets)
    .where(eq(stampSheets.owner, account));
  await queries.delete(stamps).where(and(inArray(stamps.sheet, own), lt(stamps.removed, KEPT)));
  // That a shipped one was removed is remembered: it would come back.
  await queries
    .delete(stampSheets)
    .where(
      and(
        eq(stampSheets.owner, account),
        lt(stampSheets.removed, KEPT),
        sql`${stampSheets.shipped} is null`,
      ),
    );
}

async function checkBounds(queries: Queries, { account }: Identity): Promise<void> {
  const mine = eq(stampSheets.owner, account);
  const [sheets] = await queries
    .select({ count: sql<number>`count(*)::int` })
    .from(stampSheets)
    .where(mine);
  const [all] = await queries
    .select({ count: sql<number>`count(*)::int` })
    .from(stamps)
    .innerJoin(stampSheets, eq(stamps.sheet, stampSheets.id))
    .where(mine);
  if (sheets.count > STAMP_BOUNDS.sheets || all.count > STAMP_BOUNDS.stamps)
    throw new Problem(
      'stamps-too-many',
      `There may be ${STAMP_BOUNDS.sheets} sheets and ${STAMP_BOUNDS.stamps} stamps.`,
    );
}
