import type { PictureFacts } from '@stylet/core/api';
import { filesUnseen } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { factsOf } from './queries';

/** Of some files, by their digests, those that are pictures that somebody has been given. */
export async function seenPictures(
  queries: Queries,
  identity: Identity,
  digests: readonly string[],
): Promise<Map<string, PictureFacts>> {
  if (digests.length === 0) return new Map();
  const unseen = new Set(await filesUnseen(queries, identity, digests));
  const facts = await factsOf(queries, digests);
  return new Map(facts.filter(({ digest }) => !unseen.has(digest)).map((one) => [one.digest, one]));
}
