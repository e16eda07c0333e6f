import { generateNKeysBetween } from 'fractional-indexing';

/** What has a place among others: a fractional index, compared as a plain string; then by id. */
export interface Ordered {
  readonly id: string;
  readonly order: string;
}

/** Compares by place. */
export function byOrder(a: Ordered, b: Ordered): number {
  if (a.order !== b.order) return a.order < b.order ? -1 : 1;
  return a.id < b.id ? -1 : 1;
}

/**
 * So many orders above `below` and under what follows it, in order. Orders need not differ: the next one that
 * is greater bounds the new ones.
 */
export function ordersBetween(
  below: string | undefined,
  above: readonly Pick<Ordered, 'order'>[],
  count: number,
): string[] {
  const next = above.find(({ order }) => below === undefined || order > below);
  return generateNKeysBetween(below ?? null, next?.order ?? null, count);
}
