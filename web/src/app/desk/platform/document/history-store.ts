import { Injectable, inject } from '@angular/core';
import {
  historyAfter,
  noHistory,
  type History,
  type Reversal,
  type StepKind,
} from '@stylet/core/document';
import { BrowserDb } from '../../../storage/browser-db';
import { WindowId } from '../../../storage/window-id';

/** Steps of windows that are long closed go after this many ms: three days. */
const KEPT_FOR = 3 * 24 * 3600 * 1000;

/** What this window could undo and redo, kept over a reload. */
@Injectable({ providedIn: 'root' })
export class HistoryStore {
  private readonly db = inject(BrowserDb);
  private readonly windowId = inject(WindowId);

  async add(documentId: string, kind: StepKind, reversals: readonly Reversal[]): Promise<void> {
    const [database, window] = await Promise.all([this.db.open(), this.windowId.get()]);
    await database.add('steps', { window, documentId, kind, reversals, at: Date.now() });
  }

  /** This window's history of a document. */
  async read(documentId: string): Promise<History> {
    const [database, window] = await Promise.all([this.db.open(), this.windowId.get()]);
    const steps = await database.getAllFromIndex('steps', 'place', [window, documentId]);
    return steps.reduce(
      (history, { kind, reversals }) => historyAfter(history, kind, reversals),
      noHistory,
    );
  }

  /** Forgets what is too old to be asked for. */
  async tidy(): Promise<void> {
    const database = await this.db.open();
    const transaction = database.transaction('steps', 'readwrite');
    const old = IDBKeyRange.upperBound(Date.now() - KEPT_FOR);
    for await (const cursor of transaction.store.index('at').iterate(old)) void cursor.delete();
    await transaction.done;
  }
}
