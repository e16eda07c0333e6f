import { Problem, type ProblemCode } from '@stylet/core/problems';
import { eq, sql, type SQL } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { Queries } from '../db/database';
import { dictionaries, documents, fileOwners, folders, savedSearches } from '../db/schema';
import type { Identity } from './identity';

/** What somebody may do with something; who may do more may do less. */
export const rights = ['see', 'comment', 'edit', 'own'] as const;
export type Right = (typeof rights)[number];

/** What somebody may do with what belongs to an account: as yet all, or nothing. */
function rightOn(identity: Identity, owner: string): Right | undefined {
  return identity.account === owner ? 'own' : undefined;
}

/** The rows that somebody may see. */
export const isSeenBy = ({ account }: Identity, owner: PgColumn | SQL): SQL =>
  sql`${owner} = ${account}`;

/** What an account can own, and what is said where it is not there or not to be seen. */
const things = {
  document: {
    table: documents,
    id: documents.id,
    owner: documents.owner,
    missing: 'document-not-found',
  },
  folder: { table: folders, id: folders.id, owner: folders.owner, missing: 'folder-not-found' },
  dictionary: {
    table: dictionaries,
    id: dictionaries.id,
    owner: dictionaries.owner,
    missing: 'dictionary-not-found',
  },
  search: {
    table: savedSearches,
    id: savedSearches.id,
    owner: savedSearches.account,
    missing: 'search-not-found',
  },
} as const satisfies Record<string, { missing: ProblemCode } & Record<string, unknown>>;

export type ThingName = keyof typeof things;

/**
 * Checks that something is there, or may be made (`isNewFine`); for who may not see it, it is not. Throws its Problem that
 * there is none.
 */
export async function checkRight(
  queries: Queries,
  identity: Identity,
  name: ThingName,
  id: string,
  right: Right,
  isNewFine = false,
): Promise<void> {
  const thing = things[name];
  const [found] = await queries
    .select({ owner: sql<string>`${thing.owner}` })
    .from(thing.table)
    .where(eq(thing.id, id));
  if (!found && isNewFine) return;
  checkOwner(identity, name, id, found?.owner, right);
}

/** The same for something whose owner has been read; without one it is not there. */
export function checkOwner(
  identity: Identity,
  name: ThingName,
  id: string,
  owner: string | undefined,
  right: Right,
): void {
  const has = owner === undefined ? undefined : rightOn(identity, owner);
  if (has === undefined || rights.indexOf(has) < rights.indexOf(right))
    throw new Problem(things[name].missing, `None has the id ${id}.`);
}

/** Files are kept once for all: who has brought one in may see it. Throws Problem `missing` where one has not. */
export async function checkFile(
  queries: Queries,
  identity: Identity,
  digest: string,
  missing: ProblemCode = 'source-not-found',
): Promise<void> {
  const [unseen] = await filesUnseen(queries, identity, [digest]);
  if (unseen) throw new Problem(missing, `There is none with the digest ${digest}.`);
}

/** Of some files, those that somebody has not brought in. */
export async function filesUnseen(
  queries: Queries,
  { account }: Identity,
  digests: readonly string[],
): Promise<string[]> {
  if (digests.length === 0) return [];
  const { rows } = await queries.execute<{ digest: string }>(sql`
    select w.digest from unnest(${sql.param([...new Set(digests)])}::text[]) as w(digest)
    where not exists (select 1 from ${fileOwners} f where f.account = ${account} and f.digest = w.digest)`);
  return rows.map(({ digest }) => digest);
}

/** Somebody has brought files in. */
export async function ownFiles(
  queries: Queries,
  { account }: Identity,
  digests: readonly string[],
): Promise<void> {
  await queries
    .insert(fileOwners)
    .values([...new Set(digests)].map((digest) => ({ account, digest })))
    .onConflictDoNothing();
}
