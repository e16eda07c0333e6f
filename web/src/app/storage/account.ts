/**
 * Whose data this browser keeps just now. There is one account as yet; once there is a door, it is whoever has come in by
 * it, and what others keep here is neither seen nor sent.
 */
const ACCOUNT = 'local';

/** The name under which a store, a channel, a lock or a key of an account goes; the first account's are as they were before. */
export const nameFor = (account: string, name: string): string =>
  account === 'local' ? name : `${name}@${account}`;

export const nameHere = (name: string): string => nameFor(ACCOUNT, name);

/** The database of documents that are kept here, by which workers know it too. */
export const KEPT_DB = nameHere('stylet-kept');

/** What is kept under names, as the browser's own storages do. */
export type NamedStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** A storage of the browser, as one account has it. */
export const storageFor = (account: string, storage: NamedStorage): NamedStorage => ({
  getItem: (key) => storage.getItem(nameFor(account, key)),
  setItem: (key, value) => storage.setItem(nameFor(account, key), value),
  removeItem: (key) => storage.removeItem(nameFor(account, key)),
});

/** Stays until it is taken away. */
export const accountStorage = storageFor(ACCOUNT, localStorage);
/** Stays as long as the window. */
export const windowStorage = storageFor(ACCOUNT, sessionStorage);

/** Between this browser's windows of the same account. */
export const accountChannel = (name: string): BroadcastChannel =>
  new BroadcastChannel(nameHere(name));
