import { Injectable, inject } from '@angular/core';
import { operationSchema, type Operation } from '@stylet/core/document';
import { BrowserDb } from '../../storage/browser-db';

/** Operations the server has not acknowledged yet, kept in IndexedDB in the order they were made. */
@Injectable({ providedIn: 'root' })
export class Outbox {
  private readonly db = inject(BrowserDb);

  async add(operations: readonly Operation[]): Promise<void> {
    const transaction = (await this.db.open()).transaction('operations', 'readwrite', {
      durability: 'strict',
    });
    for (const operation of operations) void transaction.store.put({ operation });
    await transaction.done;
  }

  /** What waits for one document, oldest first. */
  async waiting(documentId: string): Promise<Operation[]> {
    const rows = await (await this.db.open()).getAllFromIndex('operations', 'document', documentId);
    return inOrder(rows.map(({ operation }) => operation));
  }

  /** What waits for any document, oldest first. */
  async all(): Promise<Operation[]> {
    const rows = await (await this.db.open()).getAll('operations');
    return inOrder(rows.map(({ operation }) => operation));
  }

  async remove(ids: readonly string[]): Promise<void> {
    const transaction = (await this.db.open()).transaction('operations', 'readwrite');
    for (const id of ids) void transaction.store.delete(id);
    await transaction.done;
  }
}

/** Ids are UUIDs of version 7: their order is the order of making. Rows of other versions are left. */
function inOrder(operations: readonly Operation[]): Operation[] {
  return operations
    .filter((operation) => operationSchema.safeParse(operation).success)
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}
