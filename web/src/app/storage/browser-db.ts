import { Injectable } from '@angular/core';
import type { ConfirmedOperation, Operation, Reversal, StepKind } from '@stylet/core/document';
import type { Trouble } from '../api/problem';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { nameHere } from './account';

/** One step of a window's history, in the order of its key. */
export interface KeptStep {
  readonly window: string;
  readonly documentId: string;
  readonly kind: StepKind;
  readonly reversals: readonly Reversal[];
  readonly at: number;
}

/** An operation the server has refused, and why. */
export interface AsideOperation {
  readonly operation: Operation;
  readonly trouble: Trouble;
  /** When, in ms since 1970. */
  readonly at: number;
}

interface Schema extends DBSchema {
  operations: {
    key: string;
    value: { operation: Operation };
    indexes: { document: string };
  };
  /** Operations that are not sent again by themselves; `operation.id` is their key. */
  aside: { key: string; value: AsideOperation };
  /** Files of pictures that the server does not have yet. */
  pictures: { key: string; value: { digest: string; file: Blob } };
  /** What was done to kept documents and is not in what is kept of them yet; by document and revision. */
  log: { key: [string, number]; value: ConfirmedOperation };
  steps: {
    key: number;
    value: KeptStep;
    indexes: { place: [string, string]; at: number };
  };
}

/** What Stylet keeps in this browser's IndexedDB. */
@Injectable({ providedIn: 'root' })
export class BrowserDb {
  private opened: Promise<IDBPDatabase<Schema>> | undefined;

  open(): Promise<IDBPDatabase<Schema>> {
    this.opened ??= openDB<Schema>(nameHere('stylet'), 5, {
      upgrade(database, from) {
        if (from < 1) {
          const operations = database.createObjectStore('operations', { keyPath: 'operation.id' });
          operations.createIndex('document', 'operation.documentId');
        }
        if (from < 2) {
          const steps = database.createObjectStore('steps', { autoIncrement: true });
          steps.createIndex('place', ['window', 'documentId']);
          steps.createIndex('at', 'at');
        }
        if (from < 3) database.createObjectStore('pictures', { keyPath: 'digest' });
        if (from < 4) database.createObjectStore('aside', { keyPath: 'operation.id' });
        if (from < 5)
          database.createObjectStore('log', { keyPath: ['operation.documentId', 'revision'] });
      },
      // A window with a newer version asks for the database: this one will open it anew.
      blocking: (_current, _blocked, event) => {
        (event.target as IDBDatabase).close();
        this.opened = undefined;
      },
    });
    return this.opened;
  }
}
