import { standingFor, type Page } from '../document/index';
import {
  PdfDict,
  PdfRef,
  nameText,
  type PdfFile,
  type PdfUpdate,
  type PdfValue,
} from './objects/index';
import { inheritable, type PdfPage } from './pages';

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
  return pages.map((sheet, i) => {
    const index = sheet.sourceIndex;
    const page = inFile[index];
    if (!page) throw new RangeError(`the file has no page ${index}`);
    const isCopy = standingFor(pages, sheet) !== i;
    return { ...page, index, isCopy, ref: isCopy ? update.reserve() : page.ref };
  });
}

/** A node of the file's page tree (ISO 32000-1, 7.7.3) and the pages under it, which follow each other. */
interface Node {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
  readonly parent: Node | undefined;
  readonly first: number;
  count: number;
}

/**
 * Has the tree hold the pages in their order. Nodes whose pages stay together are kept; what goes under
 * another node gets the attributes it inherited as its own (7.7.3.4). Returns the entries that pages
 * need for that, by their objects.
 */
export function writeTree(
  file: PdfFile,
  update: PdfUpdate,
  inFile: readonly PdfPage[],
  placed: readonly PlacedPage[],
): Map<number, Record<string, PdfValue>> {
  const entries = new Map<number, Record<string, PdfValue>>();
  const isSame =
    placed.length === inFile.length &&
    placed.every(({ index, isCopy }, i) => index === i && !isCopy);
  if (isSame) return entries;
  const [root, startingAt] = readNodes(file);
  const kids: PdfRef[] = [];
  for (let i = 0; i < placed.length;) {
    const page = placed[i];
    const node = page.isCopy
      ? undefined
      : startingAt.get(page.index)?.find((one) => one !== root && isKept(one, placed, i));
    if (node && node.count > 1) {
      if (node.parent !== root) update.set(node.ref, node.dict.with(own(node, root.ref)));
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

/** Whether all pages under a node come one after the other from a place on. */
function isKept({ first, count }: Node, placed: readonly PlacedPage[], from: number): boolean {
  for (let k = 0; k < count; k++) {
    const page = placed[from + k];
    if (!page || page.isCopy || page.index !== first + k) return false;
  }
  return true;
}

/** The root, and the nodes that begin at each page, the largest first; pages are nodes of one page. */
function readNodes(file: PdfFile): [Node, Map<number, Node[]>] {
  const startingAt = new Map<number, Node[]>();
  const read = (ref: PdfRef, parent: Node | undefined, first: number): Node => {
    const dict = file.dict(ref)!;
    const node: Node = { ref, dict, parent, first, count: 0 };
    if (!startingAt.has(first)) startingAt.set(first, []);
    startingAt.get(first)!.push(node);
    if (dict.get('Kids') === null || nameText(file.resolve(dict.get('Type'))) === 'Page')
      node.count = 1;
    else
      for (const kid of file.array(dict.get('Kids')))
        if (kid instanceof PdfRef) node.count += read(kid, node, first + node.count).count;
    return node;
  };
  return [read(file.catalog.get('Pages') as PdfRef, undefined, 0), startingAt];
}

/** What a node needs under another parent. */
function own({ dict, parent }: Node, to: PdfRef): Record<string, PdfValue> {
  let inherited = new PdfDict();
  for (let above = parent; above; above = above.parent)
    inherited = inherited.with(missing(inherited, above.dict));
  return { Parent: to, ...missing(dict, inherited) };
}

/** The attributes that a dictionary has not, from another one. */
function missing(dict: PdfDict, from: PdfDict): Record<string, PdfValue> {
  const keys = inheritable.filter((key) => dict.get(key) === null && from.get(key) !== null);
  return Object.fromEntries(keys.map((key) => [key, from.get(key)]));
}
