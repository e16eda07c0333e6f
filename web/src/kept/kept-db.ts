import type { ReadingPlace, StyletDocument } from '@stylet/core/api';
import type { Annotation } from '@stylet/core/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A document that is kept in this browser, as the server had it at a revision. */
export interface KeptState {
  readonly id: string;
  readonly revision: number;
  /** How many annotations each page has that has any. */
  readonly counts: Readonly<Record<string, number>>;
  /** What its annotations take up, roughly, in bytes. */
  readonly bytes: number;
  /** The addresses of the files it needs, its own first. */
  readonly files: readonly string[];
  /** Whether somebody chose to have it here; others go when there is no room. */
  readonly isChosen: boolean;
  /** Whether it has begun here, and the server does not have it yet. */
  readonly isBegun?: boolean;
  /** When it was last open, in ms since 1970. */
  readonly used: number;
  /** Where one was last on this device, and whether the server has been told so. */
  readonly place?: ReadingPlace;
  readonly isPlaceTold?: boolean;
}

/** An annotation of a kept document, and where it is. */
export interface KeptAnnotation {
  readonly documentId: string;
  readonly id: string;
  readonly pageId: string;
  readonly annotation: Annotation;
}

/** A file by its address on the server. */
export interface KeptFile {
  readonly path: string;
  readonly blob: Blob;
}

interface Schema extends DBSchema {
  states: { key: string; value: KeptState };
  /** The same without annotations: titles, pages, landmarks. Apart, since they are long and change seldom. */
  documents: { key: string; value: StyletDocument };
  annotations: {
    key: [string, string];
    value: KeptAnnotation;
    indexes: { page: [string, string] };
  };
  files: { key: string; value: KeptFile };
}

export type KeptDb = IDBPDatabase<Schema>;

/** Opens what this browser keeps of documents. `closed` is told when another version asks for it. */
export const openKeptDb = (name: string, closed: () => void): Promise<KeptDb> =>
  openDB<Schema>(name, 1, {
    upgrade(database) {
      database.createObjectStore('states', { keyPath: 'id' });
      database.createObjectStore('documents', { keyPath: 'id' });
      const annotations = database.createObjectStore('annotations', {
        keyPath: ['documentId', 'id'],
      });
      annotations.createIndex('page', ['documentId', 'pageId']);
      database.createObjectStore('files', { keyPath: 'path' });
    },
    blocking: (_current, _blocked, event) => {
      (event.target as IDBDatabase).close();
      closed();
    },
    terminated: closed,
  });

/** Changes what is noted of a kept document, if it is kept; in one transaction, so that nothing done meanwhile is undone. */
export async function changeState(
  db: KeptDb,
  id: string,
  change: Partial<Omit<KeptState, 'id'>>,
): Promise<boolean> {
  const { store, done } = db.transaction('states', 'readwrite');
  const state = await store.get(id);
  if (state) void store.put({ ...state, ...change });
  await done;
  return state !== undefined;
}

/** One connection to a database by its name, opened when it is first asked for and again when it was closed. */
export function keptDbOf(name: string): () => Promise<KeptDb> {
  let opened: Promise<KeptDb> | undefined;
  const forget = (): void => (opened = undefined);
  return () => {
    opened ??= openKeptDb(name, forget);
    opened.catch(forget);
    return opened;
  };
}
