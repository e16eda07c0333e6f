import { Injectable } from '@angular/core';
import { operationSchema, type Operation } from '@stylet/core/document';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

interface OutboxDb extends DBSchema {
  operations: {
    key: string;
    value: { sequence?: number; operation: Operation };
    indexes: { document: string };
  };
}

/** Operations the server has not acknowledged yet, kept in IndexedDB in the order they were made. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private opened: Promise<IDBPDatabase<OutboxDb>> | undefined;

  async add(operations: readonly Operation[]): Promise<void> {
    const transaction = (await this.database()).transaction('operations', 'readwrite', {
      durability: 'strict',
    });
    for (const operation of operations) void transaction.store.put({ operation });
    await transaction.done;
  }

  /** What waits for one document, oldest first. */
  async waiting(documentId: string): Promise<Operation[]> {
    const rows = await (
      await this.database()
    ).getAllFromIndex('operations', 'document', documentId);
    return inOrder(rows.map(({ operation }) => operation));
  }

  /** What waits for any document, oldest first. */
  async all(): Promise<Operation[]> {
    const rows = await (await this.database()).getAll('operations');
    return inOrder(rows.map(({ operation }) => operation));
  }

  async remove(ids: readonly string[]): Promise<void> {
    const transaction = (await this.database()).transaction('operations', 'readwrite');
    for (const id of ids) void transaction.store.delete(id);
    await transaction.done;
  }

  private database(): Promise<IDBPDatabase<OutboxDb>> {
    this.opened ??= openDB<OutboxDb>('stylet', 1, {
      upgrade(database) {
        const store = database.createObjectStore('operations', { keyPath: 'operation.id' });
        store.createIndex('document', 'operation.documentId');
      },
    });
    return this.opened;
  }
}

/** Ids are UUIDs of version 7: their order is the order of making. Rows of other versions are left. */
function inOrder(operations: readonly Operation[]): Operation[] {
  return operations
    .filter((operation) => operationSchema.safeParse(operation).success)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}
