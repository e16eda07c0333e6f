import { copiesOf, type PageCopies } from './copied-pages';
import { newId } from './ids';
import type { OutlineEntry, Place } from './landmark';
import type { LinkTarget } from './link';
import type { Effect } from './operation';
import { outlineTree, type OutlineNode } from './outline-tree';
import { ordersBetween } from './orders';
import { pagesInOrder } from './page';
import { presentLandmarks } from './present';
import type { DocumentState } from './state';

/** Pages to take: those of another document, or of a file that is put in. */
export interface PageSupply {
  readonly state: DocumentState;
  /** The digest of its own file, in which what names no file stands. */
  readonly source: string;
  /** The document, if it is one: links to its other pages go on leading there. */
  readonly documentId: string | undefined;
}

/**
 * Takes pages of a supply into a document, to before the page at `index`, with all that is on them, their
 * keywords and bookmarks. Their entries of the outline go along, under each other as they were; all of a
 * supply that has a title goes under an entry of that name. `now` as an ISO 8601 instant.
 */
export function takePages(
  supply: PageSupply,
  ids: ReadonlySet<string>,
  into: DocumentState,
  index: number,
  now: string,
): { readonly effects: Effect[]; readonly copies: readonly string[] } {
  const there = pagesInOrder(supply.state.pages);
  const at = new Map(there.map(({ id }, i) => [id, i]));
  const { documentId, source } = supply;
  const leading = ({ pageId }: Place): LinkTarget | undefined => {
    const pageIndex = at.get(pageId);
    if (documentId === undefined || pageIndex === undefined) return undefined;
    return { documentId, title: supply.state.title, pageIndex };
  };
  const taken = copiesOf(
    { state: supply.state, leading, source, kinds: new Set(['keyword', 'bookmark']) },
    ids,
    pagesInOrder(into.pages),
    index,
    now,
  );
  const isWhole = there.every(({ id }) => ids.has(id));
  const entries = takenEntries(supply.state, taken.copyOf, isWhole, into, index);
  return {
    effects: [
      ...taken.effects,
      ...entries.map((landmark): Effect => ({ type: 'landmark.add', landmark })),
    ],
    copies: [...taken.copyOf.values()],
  };
}

/** The outline's entries of pages that are taken, with places and parents as they are there. */
function takenEntries(
  { landmarks, pages, title }: DocumentState,
  copyOf: PageCopies['copyOf'],
  isWhole: boolean,
  into: DocumentState,
  index: number,
): OutlineEntry[] {
  const nodes = outlineTree(presentLandmarks(landmarks, pages)).flatMap((node) =>
    taken(node, copyOf),
  );
  const [first] = copyOf.values();
  if (first === undefined) return [];
  const whole: OutlineNode = {
    entry: {
      kind: 'outline',
      id: newId(),
      order: '',
      title,
      place: { pageId: first },
      open: false,
    },
    children: nodes,
  };
  const top = isWhole && title !== '' ? [whole] : nodes;
  const [below, above] = neighbours(into, index);
  const orders = ordersBetween(below, above, top.length);
  return top.flatMap((node, i) => placed(node, undefined, orders[i]));
}

/** An entry with those under it that are taken; where it is not taken itself, those alone. */
function taken(
  { entry, children }: OutlineNode,
  copyOf: PageCopies['copyOf'],
): readonly OutlineNode[] {
  const under = children.flatMap((node) => taken(node, copyOf));
  const pageId = entry.place && copyOf.get(entry.place.pageId);
  if (pageId === undefined) return under;
  const { origin: _origin, parentId: _parent, ...rest } = entry;
  return [{ entry: { ...rest, id: newId(), place: { ...rest.place, pageId } }, children: under }];
}

function placed(node: OutlineNode, parentId: string | undefined, order: string): OutlineEntry[] {
  const entry = { ...node.entry, order, ...(parentId === undefined ? {} : { parentId }) };
  const orders = ordersBetween(undefined, [], node.children.length);
  return [entry, ...node.children.flatMap((child, i) => placed(child, entry.id, orders[i]))];
}

/** Between which entries at the top those of pages go that come to before the page at `index`. */
function neighbours(
  { landmarks, pages }: DocumentState,
  index: number,
): [string | undefined, readonly OutlineEntry[]] {
  const at = new Map(pagesInOrder(pages).map(({ id }, i) => [id, i]));
  const firstPage = ({ entry, children }: OutlineNode): number => {
    const own = entry.place && at.get(entry.place.pageId);
    return own ?? Math.min(Infinity, ...children.map(firstPage));
  };
  const top = outlineTree(landmarks);
  const next = top.findIndex((node) => {
    const page = firstPage(node);
    return page !== Infinity && page >= index;
  });
  const before = next < 0 ? top : top.slice(0, next);
  const after = next < 0 ? [] : top.slice(next);
  return [before.at(-1)?.entry.order, after.map(({ entry }) => entry)];
}
