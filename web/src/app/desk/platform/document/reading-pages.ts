import { Injectable, effect, inject, signal, untracked } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { PagesRead } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { isPassing, troubleOf } from '../../../api/problem';
import { KeptDocuments } from '../../../kept/kept-documents';
import { documentActions, documentFeature } from './document.reducer';
import { UnreadPages } from './unread-pages';

/** Milliseconds until the server is asked again that did not answer. */
const AGAIN = 3000;

/** Reads what is on unread pages of the open document, as far as anybody wants it. */
@Injectable()
export class ReadingPages {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly pages = inject(UnreadPages);
  private readonly snackBar = inject(MatSnackBar);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly unread = this.store.selectSignal(documentFeature.selectUnread);
  private readonly kept = inject(KeptDocuments);
  private isOld = false;
  private readonly isBusy = signal(false);
  /** The document of which no more can be read, until it is opened anew. */
  private readonly givenUp = signal<string | undefined>(undefined);

  constructor() {
    effect(() => {
      const next = this.pages.next();
      const documentId = this.documentId();
      if (next.length === 0 || documentId === undefined || this.isBusy()) return;
      if (documentId !== this.givenUp()) untracked(() => void this.read(documentId, next));
    });
    effect(() => {
      this.unread();
      untracked(() => this.pages.settle());
    });
  }

  private async fromHere(
    documentId: string,
    pageIds: readonly string[],
  ): Promise<PagesRead | undefined> {
    return this.isOld ? undefined : this.kept.onPages(documentId, pageIds);
  }

  private async read(documentId: string, pageIds: readonly string[]): Promise<void> {
    this.isBusy.set(true);
    try {
      const { revision, annotations } =
        (await this.fromHere(documentId, pageIds)) ??
        (await firstValueFrom(this.api.annotationsOn(documentId, pageIds)));
      const news = { kind: 'read', pageIds, annotations, revision } as const;
      this.store.dispatch(documentActions.heard({ documentId, news, isFromHere: false }));
      // Too much has been done since it was kept: the next time it comes from the server.
      this.isOld = this.pages.among(pageIds).length > 0;
    } catch (error) {
      if (!isPassing(error)) {
        this.givenUp.set(documentId);
        console.error('What is on pages cannot be read.', error);
        const { title, advice } = troubleOf(error);
        this.snackBar.open(`What is on some pages is missing. ${title}. ${advice}`, 'Close');
      }
      await new Promise((resolve) => setTimeout(resolve, AGAIN));
    } finally {
      this.isBusy.set(false);
    }
  }
}
