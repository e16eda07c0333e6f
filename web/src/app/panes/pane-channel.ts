import { newId } from '@stylet/core/document';
import { accountChannel, windowStorage } from '../storage/account';

const KEY = 'stylet.panes.group';

/** A channel among the panes of this window, and between a desk and the companion that lies on it. */
export function paneChannel(name: string): BroadcastChannel {
  // All frames of a window share its storage, and no other window's.
  let group = windowStorage.getItem(KEY);
  if (!group) windowStorage.setItem(KEY, (group = newId()));
  return accountChannel(`stylet.${name}.${group}`);
}
