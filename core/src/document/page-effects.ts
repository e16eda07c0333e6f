import type { Effect } from './operation';
import { pageOrders, type Page } from './page';

/** Moves pages before the one at `index`, in their order; nothing where they stand there already. */
export function movePages(
  pages: readonly Page[],
  ids: ReadonlySet<string>,
  index: number,
): Effect[] {
  const moving = pages.filter(({ id }) => ids.has(id));
  const from = pages.findIndex(({ id }) => ids.has(id));
  const isTogether = pages.slice(from, from + moving.length).every(({ id }) => ids.has(id));
  if (isTogether && index >= from && index <= from + moving.length) return [];
  const orders = pageOrders(pages, index, moving.length, ids);
  return moving.map(({ id }, i) => ({
    type: 'page.change',
    pageId: id,
    fields: { order: orders[i] },
  }));
}

/** Turns pages by a quarter or more, clockwise; degrees. */
export function rotatePages(
  pages: readonly Page[],
  ids: ReadonlySet<string>,
  by: 90 | 180 | 270,
): Effect[] {
  return pages
    .filter(({ id }) => ids.has(id))
    .map(({ id, rotation }) => ({
      type: 'page.change',
      pageId: id,
      fields: { rotation: ((rotation + by) % 360) as Page['rotation'] },
    }));
}

/** Takes pages out of a document; nothing where none would be left. */
export function removePages(pages: readonly Page[], ids: ReadonlySet<string>): Effect[] {
  const going = pages.filter(({ id }) => ids.has(id));
  if (going.length === pages.length) return [];
  return going.map(({ id }) => ({ type: 'page.remove', pageId: id }));
}
