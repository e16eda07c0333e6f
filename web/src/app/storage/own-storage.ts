import { readKept } from '../settings/kept';
import { windowStorage } from './account';

/** How the windows of panes are named. */
const PANE = /^stylet-pane-[0-9a-f-]+$/;
/** A pane learns its name from its first address; its window keeps it, wherever it goes on to. */
const PARAMETER = 'pane';

const given = new URLSearchParams(location.search).get(PARAMETER);
if (given !== null && window.parent !== window) window.name = `stylet-pane-${given}`;

/** Which pane of its window this is; undefined for a window that is not divided. */
export const paneName = (): string | undefined =>
  window.parent !== window && PANE.test(window.name) ? window.name : undefined;

/** Whether this is a pane beside others, and not a companion. */
export const isDivided = (): boolean =>
  paneName() !== undefined && window.parent.location.pathname === '/panes';

/** The address at which a pane begins. */
export const addressOfPane = (pane: string, documentId: string): string =>
  `/documents/${documentId}?${PARAMETER}=${pane}`;

/** A window's panes share its storage: each keeps what is its own under its name. */
export function ownKey(key: string): string {
  const pane = paneName();
  return pane ? `${key}.${pane}` : key;
}

/** What this window, or this pane of it, keeps until it is closed. */
export const readOwn = (key: string): unknown => readKept(windowStorage, ownKey(key));

export const keepOwn = (key: string, value: unknown): void =>
  windowStorage.setItem(ownKey(key), JSON.stringify(value));
