import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { DocumentSummary } from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { Api } from '../api/api';
import { documentActions } from '../desk/platform/document/document.reducer';
import { Author } from '../settings/author';
import { LibraryChanges } from './library-changes';

/** What is done with whole documents in the library; each says what it did, and can be undone from there. */
@Injectable({ providedIn: 'root' })
export class LibraryActions {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly dialog = inject(MatDialog);
  private readonly changes = inject(LibraryChanges);

  async askForName(document: DocumentSummary): Promise<void> {
    const { askForWords } = await import('../dialogs/words-dialog');
    const words = await askForWords(this.dialog, {
      title: 'Rename the document',
      hint: 'Its file keeps its name until it is exported.',
      label: 'Name',
      words: document.title,
      longest: 300,
      action: 'Rename',
    });
    if (words?.trim() && words.trim() !== document.title) this.rename(document, words.trim());
  }

  /** An operation like all others: it waits for the server if need be, and the desk can undo it. */
  rename({ id, title: before, revision }: DocumentSummary, title: string): void {
    const effect: Effect = { type: 'document.rename', title };
    const back: Effect = { type: 'document.rename', title: before };
    const operation = {
      id: newId(),
      documentId: id,
      author: this.author.name(),
      at: new Date().toISOString(),
      baseRevision: revision,
      effect,
    };
    const step = { operations: [operation], reversals: [{ effect: back, of: effect }] };
    this.store.dispatch(documentActions.stepMade({ documentId: id, kind: 'changed', step }));
  }

  async duplicate({ id, title }: DocumentSummary): Promise<void> {
    if (await this.changes.carryOut([this.api.duplicate(id)]))
      this.changes.tell(`“${title}” has a copy now.`);
  }

  async remove({ id, title }: DocumentSummary): Promise<void> {
    if (await this.changes.carryOut([this.api.setTrashed(id, true)]))
      this.changes.tell(`“${title}” is in the trash.`, [this.api.setTrashed(id, false)]);
  }

  async restore({ id, title }: DocumentSummary): Promise<void> {
    if (await this.changes.carryOut([this.api.setTrashed(id, false)]))
      this.changes.tell(`“${title}” is in the library again.`);
  }

  /** Removes documents that are in the trash, after asking; whether they are gone. */
  async removeForGood(documents: readonly DocumentSummary[]): Promise<boolean> {
    const { askWhether } = await import('../dialogs/question-dialog');
    const [first] = documents;
    const what = documents.length === 1 ? `“${first.title}”` : `${documents.length} documents`;
    const isMeant = await askWhether(this.dialog, {
      title: `Remove ${what} for good?`,
      words: 'What is written on them goes too. This cannot be undone.',
      action: 'Remove for good',
    });
    return isMeant && this.changes.carryOut(documents.map(({ id }) => this.api.removeForGood(id)));
  }
}
