import type { NamedStorage } from '../storage/account';

/** What a browser storage keeps under a key, or undefined when it is nothing JSON can read. */
export function readKept(storage: NamedStorage, key: string): unknown {
  try {
    return JSON.parse(storage.getItem(key) ?? 'null');
  } catch (error) {
    console.warn(`What this browser keeps as ${key} cannot be read; it starts afresh.`, error);
    return undefined;
  }
}
