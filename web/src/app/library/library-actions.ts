import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { DocumentSummary } from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { firstValueFrom, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { documentActions } from '../desk/document/document.reducer';
import { Author } from '../settings/author';
import { libraryActions } from './library.reducer';

/** What is done with whole documents in the library; each says what it did, and can be undone from there. */
@Injectable({ providedIn: 'root' })
export class LibraryActions {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly author = inject(Author);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);

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
    if (await this.carryOut([this.api.duplicate(id)])) this.tell(`“${title}” has a copy now.`);
  }

  async remove({ id, title }: DocumentSummary): Promise<void> {
    if (await this.carryOut([this.api.setTrashed(id, true)]))
      this.tell(`“${title}” is in the trash.`, this.api.setTrashed(id, false));
  }

  async restore({ id, title }: DocumentSummary): Promise<void> {
    if (await this.carryOut([this.api.setTrashed(id, false)]))
      this.tell(`“${title}” is in the library again.`);
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
    return isMeant && this.carryOut(documents.map(({ id }) => this.api.removeForGood(id)));
  }

  private tell(message: string, undo?: Observable<unknown>): void {
    const bar = this.snackBar.open(message, undo ? 'Undo' : 'Close', { duration: 8000 });
    if (undo) bar.onAction().subscribe(() => void this.carryOut([undo]));
  }

  /** Sends changes one after the other, and shows what has become of it; whether all went well. */
  private async carryOut(changes: readonly Observable<unknown>[]): Promise<boolean> {
    try {
      for (const change of changes) await firstValueFrom(change);
      return true;
    } catch (error) {
      const { title, advice } = troubleOf(error);
      this.snackBar.open(`${title}. ${advice}`, 'Close', { duration: 8000 });
      return false;
    } finally {
      this.store.dispatch(libraryActions.opened());
    }
  }
}
