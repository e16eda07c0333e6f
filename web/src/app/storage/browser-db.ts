import { Injectable } from '@angular/core';
import type { ConfirmedOperation, Operation, Reversal, StepKind } from '@stylet/core/document';
import type { DocumentText } from '@stylet/core/api';
import type { Trouble } from '../api/problem';
import {
  openDB,
  unwrap,
  wrap,
  type DBSchema,
  type IDBPDatabase,
  type IDBPTransaction,
  type StoreNames,
} from 'idb';
import type { BegunDocument } from '../../kept/begun';
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

/** A text as it was changed here; `base` is the file it was read from. */
export interface WaitingText {
  readonly documentId: string;
  readonly base: DocumentText;
  readonly text: DocumentText['text'];
}

interface Schema extends DBSchema {
  /** Operations that wait for the server, in the order they came: ids follow a clock, which may be set back. */
  waiting: {
    key: number;
    value: { operation: Operation };
    indexes: { document: string; id: string };
  };
  /** Operations that are not sent again by themselves; `operation.id` is their key. */
  aside: { key: string; value: AsideOperation };
  /** Files of pictures that the server does not have yet. */
  pictures: { key: string; value: { digest: string; file: Blob } };
  /** What was done to kept documents and is not in what is kept of them yet; by document and revision. */
  log: { key: [string, number]; value: ConfirmedOperation };
  /** Documents that have begun here and that the server does not have yet. */
  begun: { key: string; value: BegunDocument };
  /** Texts of typed pages that the server does not have yet. */
  texts: { key: string; value: WaitingText };
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
    this.opened ??= openDB<Schema>(nameHere('stylet'), 8, {
      async upgrade(database, from, _to, transaction) {
        if (from < 2) {
          const steps = database.createObjectStore('steps', { autoIncrement: true });
          steps.createIndex('place', ['window', 'documentId']);
          steps.createIndex('at', 'at');
        }
        if (from < 3) database.createObjectStore('pictures', { keyPath: 'digest' });
        if (from < 4) database.createObjectStore('aside', { keyPath: 'operation.id' });
        if (from < 5)
          database.createObjectStore('log', { keyPath: ['operation.documentId', 'revision'] });
        if (from < 6) {
          const waiting = database.createObjectStore('waiting', { autoIncrement: true });
          waiting.createIndex('document', 'operation.documentId');
          waiting.createIndex('id', 'operation.id', { unique: true });
          if (from > 0) await takeOver(database, transaction);
        }
        if (from < 7) database.createObjectStore('begun', { keyPath: 'id' });
        if (from < 8) database.createObjectStore('texts', { keyPath: 'documentId' });
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

/** Until version 5 operations waited by their ids. */
async function takeOver(
  database: IDBPDatabase<Schema>,
  transaction: IDBPTransaction<Schema, StoreNames<Schema>[], 'versionchange'>,
): Promise<void> {
  const before = unwrap(transaction).objectStore('operations');
  const rows = await wrap(before.getAll() as IDBRequest<{ operation: Operation }[]>);
  for (const row of rows) await transaction.objectStore('waiting').add(row);
  unwrap(database).deleteObjectStore('operations');
}
