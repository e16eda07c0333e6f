import { PdfDict, PdfRef, nameText, type PdfFile, type PdfValue } from './objects/index';
import { inheritable } from './pages';

/** A node of the file's page tree (ISO 32000-1, 7.7.3) and the pages under it, which follow each other. */
export interface PageNode {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
  readonly parent: PageNode | undefined;
  readonly isPage: boolean;
  readonly first: number;
  /** How many pages there are under it, whatever it says itself. */
  count: number;
}

type PageNodes = readonly [PageNode, ReadonlyMap<number, readonly PageNode[]>];

const known = new WeakMap<PdfFile, PageNodes>();

/** The root, and the nodes that begin at each page, the largest first; pages are nodes of one page. */
export function pageNodes(file: PdfFile): PageNodes {
  let nodes = known.get(file);
  if (!nodes) known.set(file, (nodes = readNodes(file)));
  return nodes;
}

function readNodes(file: PdfFile): PageNodes {
  const startingAt = new Map<number, PageNode[]>();
  let pages = 0;
  const enter = (ref: PdfRef, parent: PageNode | undefined): PageNode => {
    const dict = file.dict(ref)!;
    const isPage = dict.get('Kids') === null || nameText(file.resolve(dict.get('Type'))) === 'Page';
    const node: PageNode = { ref, dict, parent, isPage, first: pages, count: isPage ? 1 : 0 };
    const here = startingAt.get(pages);
    if (here) here.push(node);
    else startingAt.set(pages, [node]);
    if (isPage) {
      pages++;
      for (let above = parent; above; above = above.parent) above.count++;
    }
    return node;
  };
  const root = enter(file.catalog.get('Pages') as PdfRef, undefined);
  const stack = [{ node: root, kids: kidsOf(file, root) }];
  while (stack.length > 0) {
    const { node, kids } = stack.at(-1)!;
    const kid = kids.next();
    if (kid.done) {
      stack.pop();
      continue;
    }
    const below = enter(kid.value, node);
    if (!below.isPage) stack.push({ node: below, kids: kidsOf(file, below) });
  }
  return [root, startingAt];
}

function kidsOf(file: PdfFile, { dict, isPage }: PageNode): IterableIterator<PdfRef> {
  const kids = isPage ? [] : file.array(dict.get('Kids'));
  return kids.filter((kid): kid is PdfRef => kid instanceof PdfRef).values();
}

/** What a node needs under another parent: the attributes it inherited (7.7.3.4). */
export function underAnother({ dict, parent }: PageNode, to: PdfRef): Record<string, PdfValue> {
  let inherited = new PdfDict();
  for (let above = parent; above; above = above.parent)
    inherited = inherited.with(missing(inherited, above.dict));
  return { Parent: to, ...missing(dict, inherited) };
}

/** The inheritable attributes that a dictionary has not, from another one. */
export function missing(dict: PdfDict, from: PdfDict): Record<string, PdfValue> {
  const keys = inheritable.filter((key) => dict.get(key) === null && from.get(key) !== null);
  return Object.fromEntries(keys.map((key) => [key, from.get(key)]));
}
