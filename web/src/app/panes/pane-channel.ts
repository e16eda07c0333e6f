import { newId } from '@stylet/core/document';
import { paneName } from '../storage/own-storage';

const KEY = 'stylet.panes.group';

/** A channel among the panes of this window; undefined where it is not divided. */
export function paneChannel(name: string): BroadcastChannel | undefined {
  if (paneName() === undefined) return undefined;
  // All panes of a window share its storage, and no other window's.
  let group = sessionStorage.getItem(KEY);
  if (!group) sessionStorage.setItem(KEY, (group = newId()));
  return new BroadcastChannel(`stylet.${name}.${group}`);
}
