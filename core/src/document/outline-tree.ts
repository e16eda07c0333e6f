import type { Landmark, Landmarks, OutlineEntry } from './landmark';
import { byOrder, ordersBetween } from './orders';

/** An entry of the outline with those under it, in order. */
export interface OutlineNode {
  readonly entry: OutlineEntry;
  readonly children: readonly OutlineNode[];
}

/**
 * The outline as a tree. What others have done meanwhile never loses an entry: one whose parent is gone,
 * or which has come under itself, stands at the top.
 */
export function outlineTree(landmarks: Landmarks): readonly OutlineNode[] {
  const entries = Object.values(landmarks).filter(isEntry);
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const under = new Map<string | undefined, OutlineEntry[]>();
  for (const entry of entries) {
    const parent = isRooted(entry, byId) ? entry.parentId : undefined;
    const siblings = under.get(parent);
    if (siblings) siblings.push(entry);
    else under.set(parent, [entry]);
  }
  const nodesUnder = (id: string | undefined): OutlineNode[] =>
    (under.get(id) ?? []).sort(byOrder).map((entry) => ({ entry, children: nodesUnder(entry.id) }));
  return nodesUnder(undefined);
}

const isEntry = (landmark: Landmark): landmark is OutlineEntry => landmark.kind === 'outline';

/** Whether the way up from an entry ends at the top. */
function isRooted(entry: OutlineEntry, byId: ReadonlyMap<string, OutlineEntry>): boolean {
  const passed = new Set<string>();
  let at: OutlineEntry | undefined = entry;
  while (at.parentId !== undefined) {
    if (passed.has(at.id)) return false;
    passed.add(at.id);
    at = byId.get(at.parentId);
    if (!at) return false;
  }
  return true;
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
