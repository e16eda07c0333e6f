import { newId, orderAbove } from './ids';
import type { OutlineEntry, Place } from './landmark';

/** An entry as it is listed: one after another, each so deep. */
export interface ListedEntry {
  readonly title: string;
  /** From 0; nothing is more than one deeper than what comes before it. */
  readonly depth: number;
  readonly place: Place;
}

/** Entries of an outline from a list of them; those at the top show what is under them. */
export function nestedEntries(list: readonly ListedEntry[]): OutlineEntry[] {
  const above: OutlineEntry[] = [];
  return list.map(({ title, depth, place }) => {
    const level = Math.min(depth, above.length);
    const parent = above[level - 1];
    const before = above[level];
    const entry: OutlineEntry = {
      kind: 'outline',
      id: newId(),
      order: orderAbove(before?.parentId === parent?.id ? before?.order : undefined),
      title,
      place,
      open: level === 0,
      ...(parent ? { parentId: parent.id } : {}),
    };
    above.splice(level, above.length, entry);
    return entry;
  });
}
