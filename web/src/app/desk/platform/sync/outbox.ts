import { Injectable, inject } from '@angular/core';
import { operationSchema, type ConfirmedOperation, type Operation } from '@stylet/core/document';
import type { Trouble } from '../../../api/problem';
import { BrowserDb, type AsideOperation } from '../../../storage/browser-db';

/** Why an operation would never be sent; undefined for one that is as it should be. */
function troubleWith(operation: Operation): Trouble | undefined {
  const { error } = operationSchema.safeParse(operation);
  const issue = error?.issues[0];
  return (
    issue && {
      code: 'operation-unreadable',
      title: 'A change is not as this version of Stylet reads it',
      detail: `${issue.path.join('.')}: ${issue.message}.`,
      advice: 'Save it as a file. If it was made by another version, that one can read it.',
    }
  );
}

/**
 * Operations the server has not acknowledged yet, kept in IndexedDB in the order they were made, and those it has
 * refused, which are put aside.
 */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly db = inject(BrowserDb);

  async add(operations: readonly Operation[]): Promise<void> {
    const transaction = (await this.db.open()).transaction('waiting', 'readwrite', {
      durability: 'strict',
    });
    for (const operation of operations) void transaction.store.add({ operation });
    // Committed at once, it is carried out even if the page is left now (Indexed Database API 3.0, 5.4).
    transaction.commit();
    await transaction.done;
  }

  /** What waits for one document, oldest first. */
  async waiting(documentId: string): Promise<Operation[]> {
    const rows = await (await this.db.open()).getAllFromIndex('waiting', 'document', documentId);
    return rows.map(({ operation }) => operation).filter(isReadable);
  }

  /** The first of what waits for one document, oldest first; without reading what comes after. */
  async first(documentId: string, most: number): Promise<readonly Operation[]> {
    const db = await this.db.open();
    // Entries of an index that are alike go by their primary keys (Indexed Database API 3.0, 2.6): as they came.
    const rows = await db.getAllFromIndex('waiting', 'document', documentId, most);
    return rows.map(({ operation }) => operation);
  }

  /** What waits for any document, oldest first. */
  async all(): Promise<Operation[]> {
    const rows = await (await this.db.open()).getAll('waiting');
    return rows.map(({ operation }) => operation).filter(isReadable);
  }

  /** How much waits for each document for which something does. */
  async inventory(): Promise<Map<string, number>> {
    const { store } = (await this.db.open()).transaction('waiting');
    const index = store.index('document');
    const counts = new Map<string, number>();
    let cursor = await index.openKeyCursor(null, 'nextunique');
    for (; cursor; cursor = await cursor.continue())
      counts.set(cursor.key, await index.count(cursor.key));
    return counts;
  }

  /** The server has carried operations out. Those `logged` are then there: at no moment they are in neither. */
  async acknowledge(
    operations: readonly Operation[],
    logged: readonly ConfirmedOperation[] = [],
  ): Promise<void> {
    const transaction = (await this.db.open()).transaction(['waiting', 'log'], 'readwrite');
    for (const one of logged) void transaction.objectStore('log').put(one);
    await remove(transaction.objectStore('waiting'), operations);
    await transaction.done;
  }

  /** Puts an operation aside: it stays, and the others go on without it. */
  async putAside(operation: Operation, trouble: Trouble): Promise<AsideOperation> {
    const row: AsideOperation = { operation, trouble, at: Date.now() };
    const transaction = (await this.db.open()).transaction(['waiting', 'aside'], 'readwrite');
    await transaction.objectStore('aside').put(row);
    await remove(transaction.objectStore('waiting'), [operation]);
    await transaction.done;
    return row;
  }

  /** Puts aside which of these cannot be read, by default of all that wait: it would never be sent. */
  async sortOut(some?: readonly Operation[]): Promise<AsideOperation[]> {
    const rows = some?.map((operation) => ({ operation }));
    const put: AsideOperation[] = [];
    for (const { operation } of rows ?? (await (await this.db.open()).getAll('waiting'))) {
      const trouble = troubleWith(operation);
      if (trouble) put.push(await this.putAside(operation, trouble));
    }
    return put;
  }

  /** Lets go of all that waits for a document that nobody wants. */
  async drop(documentId: string): Promise<void> {
    const transaction = (await this.db.open()).transaction('waiting', 'readwrite');
    for (const key of await transaction.store.index('document').getAllKeys(documentId))
      void transaction.store.delete(key);
    await transaction.done;
  }

  /** What was put aside, oldest first. */
  async aside(): Promise<AsideOperation[]> {
    const rows = await (await this.db.open()).getAll('aside');
    return rows.sort((a, b) => a.at - b.at);
  }

  /** Takes back what was put aside, to be sent again. */
  async takeBack(ids: readonly string[]): Promise<void> {
    const transaction = (await this.db.open()).transaction(['waiting', 'aside'], 'readwrite');
    for (const id of ids) {
      const row = await transaction.objectStore('aside').get(id);
      if (!row) continue;
      await transaction.objectStore('waiting').add({ operation: row.operation });
      await transaction.objectStore('aside').delete(id);
    }
    await transaction.done;
  }

  /** Lets go of what was put aside. */
  async forget(ids: readonly string[]): Promise<void> {
    const transaction = (await this.db.open()).transaction('aside', 'readwrite');
    for (const id of ids) void transaction.store.delete(id);
    await transaction.done;
  }
}

const isReadable = (operation: Operation): boolean => troubleWith(operation) === undefined;

/** The store of what waits, in whichever transaction. */
interface WaitingStore {
  index(name: 'id'): { getKey(id: string): Promise<number | undefined> };
  delete(key: number): Promise<void>;
}

async function remove(waiting: WaitingStore, operations: readonly Operation[]): Promise<void> {
  for (const { id } of operations) {
    const key = await waiting.index('id').getKey(id);
    if (key !== undefined) void waiting.delete(key);
  }
}
