import { z } from 'zod';
import { coordinate, count, order, text } from '../bounds/index';
import { digestSchema, idSchema } from './common-fields';
import { byOrder, ordersBetween } from './orders';

/** A page of a document that another one was written beside. */
export const besideSchema = z.object({ documentId: idSchema, pageId: idSchema });
export type Beside = z.infer<typeof besideSchema>;

/** A page as a document keeps it. */
export const documentPageSchema = z.object({
  id: idSchema,
  /** Where it stands among the document's pages. */
  order,
  /** Points, before rotation. */
  width: coordinate.positive(),
  height: coordinate.positive(),
  /** How it is shown, in degrees clockwise. */
  rotation: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  /** What its file calls it; null where its place in the document does. */
  label: text(500).nullable(),
  /** The file it is a page of, and its index there. */
  source: digestSchema,
  sourceIndex: count,
  /** Whether the file has annotations on it that are drawn, or left out, by what became of them here. */
  hasMarks: z.boolean(),
  /** In a companion: the page it was written beside. */
  beside: besideSchema.nullish(),
});

/** The fields of a page that can be changed in place. */
export const pageFieldsSchema = documentPageSchema
  .pick({ order: true, rotation: true, beside: true })
  .partial();

export type DocumentPage = z.infer<typeof documentPageSchema>;
export type PageFields = z.infer<typeof pageFieldsSchema>;
export type Pages = Readonly<Record<string, DocumentPage>>;

/** A page in its place, and what it is called there. */
export interface Page extends Omit<DocumentPage, 'label'> {
  readonly label: string;
}

const sorted = new WeakMap<Pages, readonly Page[]>();

/** A document's pages in order, with their labels; sorted once, for records of pages are immutable. */
export function pagesInOrder(pages: Pages): readonly Page[] {
  let list = sorted.get(pages);
  if (!list) {
    list = Object.values(pages)
      .sort(byOrder)
      .map((page, i) => Object.assign({}, page, { label: page.label ?? String(i + 1) }));
    sorted.set(pages, list);
  }
  return list;
}

/** Which page of which file a page is. */
export type SourceOfPage = Pick<Page, 'source' | 'sourceIndex'>;

const keyOf = ({ source, sourceIndex }: SourceOfPage): string => `${source} ${sourceIndex}`;

const owners = new WeakMap<readonly unknown[], ReadonlyMap<string, number>>();

/**
 * Which of a document's pages stands for a page of a file: where links and the outline of the file lead. Of
 * several copies it is the one that was there first. Its place among `pages`; undefined where none does.
 */
export function standingFor(
  pages: readonly (SourceOfPage & Pick<Page, 'id'>)[],
  sheet: SourceOfPage,
): number | undefined {
  let known = owners.get(pages);
  if (!known) {
    const found = new Map<string, number>();
    pages.forEach((page, i) => {
      const key = keyOf(page);
      const other = found.get(key);
      // Ids sort by when they were made (RFC 9562, 5.7).
      if (other === undefined || page.id < pages[other].id) found.set(key, i);
    });
    owners.set(pages, (known = found));
  }
  return known.get(keyOf(sheet));
}

/** So many orders for pages that go before the one at `index`; those of `moving` make no difference. */
export function pageOrders(
  pages: readonly Pick<DocumentPage, 'id' | 'order'>[],
  index: number,
  count: number,
  moving: ReadonlySet<string> = new Set(),
): string[] {
  const stay = (page: Pick<DocumentPage, 'id'>): boolean => !moving.has(page.id);
  const below = pages.slice(0, index).findLast(stay)?.order;
  return ordersBetween(below, pages.slice(index).filter(stay), count);
}
