import { moveItemInArray } from '@angular/cdk/drag-drop';
import type { Registered } from '../../platform/feature/registered';
import type { Aid, AidEntry, ToolEntry } from '../../platform/feature/tools';

/** What stands in the rail besides slots: a tool that is taken, or an aid that is switched. */
export type RailTool =
  | { readonly id: string; readonly entry: ToolEntry; readonly aid?: undefined }
  | { readonly id: string; readonly entry: AidEntry; readonly aid: Aid };

/** All there are, as they are registered. */
export const railToolsOf = (registered: Registered): readonly RailTool[] => [
  ...registered.tools
    .filter(({ isInSlots }) => !isInSlots)
    .map((entry): RailTool => ({ id: entry.id, entry })),
  ...registered.aids.map((entry): RailTool => ({
    id: entry.id,
    entry,
    aid: registered.aidOf(entry),
  })),
];

/** In an order of ids; those that it does not name come after. */
export function inOrder(tools: readonly RailTool[], order: readonly string[]): RailTool[] {
  const at = new Map(order.map((id, i) => [id, i]));
  return [...tools].sort((a, b) => (at.get(a.id) ?? order.length) - (at.get(b.id) ?? order.length));
}

/** The ids in order when the one at a place among those that show goes to another's place. */
export function movedIn(
  all: readonly RailTool[],
  shown: readonly RailTool[],
  from: number,
  to: number,
): string[] {
  const ids = all.map(({ id }) => id);
  const [what, where] = [shown[from]?.id, shown[to]?.id];
  if (what !== undefined && where !== undefined)
    moveItemInArray(ids, ids.indexOf(what), ids.indexOf(where));
  return ids;
}
