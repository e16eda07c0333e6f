import { standingFor, type Page } from '../document/index';
import type { PdfRef } from './objects/index';
import { numberOr, type PdfFile, type PdfUpdate, type PdfValue } from './objects/index';
import { missing, pageNodes, underAnother, type PageNode } from './page-nodes';
import type { PdfPage } from './pages';

/** A page of an export: one of the file's, or a copy of it under an object of its own. */
export interface PlacedPage extends PdfPage {
  /** Its place in the file. */
  readonly index: number;
  readonly isCopy: boolean;
}

/** Finds each page its object: one stands for the page of the file, others are copies of it. */
export function placePages(
  update: PdfUpdate,
  inFile: readonly PdfPage[],
  pages: readonly Pick<Page, 'id' | 'source' | 'sourceIndex'>[],
): PlacedPage[] {
  return pages.map((one, i) => {
    const index = one.sourceIndex;
    const page = inFile[index];
    if (!page) throw new RangeError(`the file has no page ${index}`);
    const isCopy = standingFor(pages, one) !== i;
    return { ...page, index, isCopy, ref: isCopy ? update.reserve() : page.ref };
  });
}

/**
 * Has the tree hold the pages in their order. Nodes whose pages stay together are kept; what goes under
 * another node gets the attributes it inherited as its own (ISO 32000-1, 7.7.3.4). A node that says wrongly how
 * many pages it has is put right. Returns the entries that pages need for that, by their objects.
 */
export function writeTree(
  file: PdfFile,
  update: PdfUpdate,
  inFile: readonly PdfPage[],
  placed: readonly PlacedPage[],
): Map<number, Record<string, PdfValue>> {
  const entries = new Map<number, Record<string, PdfValue>>();
  const [root, startingAt] = pageNodes(file);
  mendCounts(file, update, startingAt);
  const isSame =
    placed.length === inFile.length &&
    placed.every(({ index, isCopy }, i) => index === i && !isCopy);
  if (isSame) return entries;
  const kids: PdfRef[] = [];
  for (let i = 0; i < placed.length;) {
    const page = placed[i];
    const node = page.isCopy
      ? undefined
      : startingAt.get(page.index)?.find((one) => one !== root && isKept(one, placed, i));
    if (node && node.count > 1) {
      if (node.parent !== root)
        update.set(
          node.ref,
          node.dict.with({ ...underAnother(node, root.ref), Count: node.count }),
        );
      kids.push(node.ref);
      i += node.count;
      continue;
    }
    if (page.isCopy || node?.parent !== root)
      entries.set(page.ref.object, { Parent: root.ref, ...missing(page.dict, page.attributes) });
    kids.push(page.ref);
    i++;
  }
  update.set(root.ref, root.dict.with({ Kids: kids, Count: placed.length }));
  return entries;
}

/** Table 29: the number of pages under a node, which programs go by to find the n-th page. */
function mendCounts(
  file: PdfFile,
  update: PdfUpdate,
  startingAt: ReadonlyMap<number, readonly PageNode[]>,
): void {
  for (const nodes of startingAt.values())
    for (const { ref, dict, isPage, count } of nodes)
      if (!isPage && numberOr(file.resolve(dict.get('Count'))) !== count)
        update.set(ref, dict.with({ Count: count }));
}

/** Whether all pages under a node come one after the other from a place on. */
function isKept({ first, count }: PageNode, placed: readonly PlacedPage[], from: number): boolean {
  for (let k = 0; k < count; k++) {
    const page = placed[from + k];
    if (!page || page.isCopy || page.index !== first + k) return false;
  }
  return true;
}
