import { generateNKeysBetween } from 'fractional-indexing';
import type { Annotation } from './annotation';

/** Where annotations go in the painting order. */
export const orderings = ['front', 'forward', 'backward', 'back'] as const;
export type Ordering = (typeof orderings)[number];

/**
 * New painting orders for chosen annotations of a page, by id: to the front or the back, or past the
 * next one that is not chosen. They keep their order among each other. `page` is in painting order;
 * nothing is returned where they are there already.
 */
export function reordered(
  page: readonly Annotation[],
  chosen: ReadonlySet<string>,
  to: Ordering,
): Map<string, string> {
  const moving = page.filter(({ id }) => chosen.has(id));
  const others = page.filter(({ id }) => !chosen.has(id));
  if (moving.length === 0 || others.length === 0) return new Map();
  const place = placeFor(page, others, chosen, to);
  const isThere = page.slice(place, place + moving.length).every(({ id }) => chosen.has(id));
  if (isThere) return new Map();
  const keys = generateNKeysBetween(
    others[place - 1]?.order ?? null,
    nextOrder(others, place),
    moving.length,
  );
  return new Map(moving.map(({ id }, i) => [id, keys[i]]));
}

/** How many of the others lie under the chosen ones afterwards. */
function placeFor(
  page: readonly Annotation[],
  others: readonly Annotation[],
  chosen: ReadonlySet<string>,
  to: Ordering,
): number {
  const at = (i: number): number => page.slice(0, i).filter(({ id }) => !chosen.has(id)).length;
  switch (to) {
    case 'front':
      return others.length;
    case 'back':
      return 0;
    case 'forward':
      return Math.min(others.length, at(page.findLastIndex(({ id }) => chosen.has(id))) + 1);
    case 'backward':
      return Math.max(0, at(page.findIndex(({ id }) => chosen.has(id))) - 1);
  }
}

/** Orders need not differ: the next one that is greater than the one below bounds the new ones. */
function nextOrder(others: readonly Annotation[], place: number): string | null {
  const below = others[place - 1]?.order;
  return (
    others.slice(place).find(({ order }) => below === undefined || order > below)?.order ?? null
  );
}
