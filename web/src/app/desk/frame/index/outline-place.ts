import type { OutlineNode } from '@stylet/core/document';
import type { IndexRow } from './index-rows';
import type { OutlinePlace } from '../../platform/landmarks/landmark-actions';

/**
 * The place in the outline above the row at `index`, as deep as wanted where the rows around it allow that;
 * `moving` is the key of the entry that goes there.
 */
export function outlinePlaceAt(
  rows: readonly IndexRow[],
  tree: readonly OutlineNode[],
  index: number,
  wanted: number,
  moving: string,
): { place: OutlinePlace; depth: number } | undefined {
  const entries = rows.filter(({ kind }) => kind === 'outline');
  const before = rows
    .slice(0, index)
    .findLast(({ kind, key }) => kind === 'outline' && key !== moving);
  if (!before?.node) return { place: { parentId: undefined, index: 0 }, depth: 0 };
  const next = entries[entries.indexOf(before) + 1];
  const deepest = before.depth + 1;
  const least = next ? Math.min(next.depth, deepest) : 0;
  const depth = Math.min(deepest, Math.max(least, wanted));
  if (depth === deepest) return { place: { parentId: before.key, index: 0 }, depth };
  let beside = before;
  while (beside.depth > depth) {
    const parentId = beside.node?.entry.parentId;
    const parent = entries.find(({ key }) => key === parentId);
    if (!parent) return undefined;
    beside = parent;
  }
  const parentId = beside.node!.entry.parentId;
  const siblings = parentId ? entries.find(({ key }) => key === parentId)!.node!.children : tree;
  const at = siblings.findIndex(({ entry }) => entry.id === beside.key);
  return { place: { parentId, index: at + 1 }, depth };
}
