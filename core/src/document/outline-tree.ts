import type { Landmark, Landmarks, OutlineEntry } from './landmark';
import { byOrder, ordersBetween } from './orders';

/** An entry of the outline with those under it, in order. */
export interface OutlineNode {
  readonly entry: OutlineEntry;
  readonly children: readonly OutlineNode[];
}

/** Levels of an outline; what is put deeper stands at the lowest of them. */
const MOST_LEVELS = 64;

/**
 * The outline as a tree. What others have done meanwhile never loses an entry: one whose parent is gone,
 * or which has come under itself, stands at the top.
 */
export function outlineTree(landmarks: Landmarks): readonly OutlineNode[] {
  const entries = Object.values(landmarks).filter(isEntry);
  const parentOf = parents(entries);
  const under = new Map<string | undefined, OutlineEntry[]>();
  for (const entry of entries) {
    const parent = parentOf.get(entry.id)?.parentId;
    const siblings = under.get(parent);
    if (siblings) siblings.push(entry);
    else under.set(parent, [entry]);
  }
  const nodesUnder = (id: string | undefined): OutlineNode[] =>
    (under.get(id) ?? []).sort(byOrder).map((entry) => ({ entry, children: nodesUnder(entry.id) }));
  return nodesUnder(undefined);
}

const isEntry = (landmark: Landmark): landmark is OutlineEntry => landmark.kind === 'outline';

interface Standing {
  readonly parentId: string | undefined;
  /** From 0 at the top. */
  readonly level: number;
}

/** Under which entry each stands in the tree, and how deep. */
function parents(entries: readonly OutlineEntry[]): ReadonlyMap<string, Standing> {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const known = new Map<string, Standing>();
  const top: Standing = { parentId: undefined, level: 0 };
  for (const entry of entries) {
    // Up to one whose standing is known, and down again.
    const way: OutlineEntry[] = [];
    const passed = new Set<string>();
    let at: OutlineEntry | undefined = entry;
    while (at && !known.has(at.id) && !passed.has(at.id)) {
      passed.add(at.id);
      way.push(at);
      at = at.parentId === undefined ? undefined : byId.get(at.parentId);
    }
    // A circle: all on the way to it stand at the top.
    const isCircle = at !== undefined && passed.has(at.id);
    for (const one of way.reverse())
      known.set(one.id, isCircle ? top : standingUnder(one.parentId, known));
  }
  return known;
}

function standingUnder(
  parentId: string | undefined,
  known: ReadonlyMap<string, Standing>,
): Standing {
  const parent = parentId === undefined ? undefined : known.get(parentId);
  if (!parent) return { parentId: undefined, level: 0 };
  return parent.level < MOST_LEVELS - 1 ? { parentId, level: parent.level + 1 } : parent;
}

/** An entry and all under it. */
export function entriesUnder(node: OutlineNode): OutlineEntry[] {
  return [node.entry, ...node.children.flatMap(entriesUnder)];
}

/** The order of an entry that goes between others: before those from `index` on, without `moving`. */
export function orderAt(
  siblings: readonly OutlineNode[],
  index: number,
  movingId?: string,
): string {
  const others = siblings.filter(({ entry }) => entry.id !== movingId).map(({ entry }) => entry);
  const before = siblings.slice(0, index).filter(({ entry }) => entry.id !== movingId).length;
  return ordersBetween(others[before - 1]?.order, others.slice(before), 1)[0];
}
