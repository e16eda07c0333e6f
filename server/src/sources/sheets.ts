import { and, between, eq } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { sourcePages } from '../db/schema';

/** Which sheets the pages of a file are, by their indices there, which are given in order. */
export async function sheetsOf(
  queries: Queries,
  source: string,
  indices: readonly number[],
): Promise<ReadonlyMap<number, number>> {
  if (indices.length === 0) return new Map();
  const [first, last] = [indices[0], indices[indices.length - 1]];
  const rows = await queries
    .select({ index: sourcePages.sourceIndex, sheet: sourcePages.sheet })
    .from(sourcePages)
    .where(and(eq(sourcePages.source, source), between(sourcePages.sourceIndex, first, last)));
  return new Map(rows.map(({ index, sheet }) => [index, sheet]));
}
