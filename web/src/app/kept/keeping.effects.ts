import { Injectable, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { concatMap, debounceTime, filter, firstValueFrom, merge } from 'rxjs';
import { Api } from '../api/api';
import { isPassing, troubleOf } from '../api/problem';
import { documentActions, documentFeature } from '../desk/platform/document/document.reducer';
import { Live } from '../desk/platform/live/live';
import { BegunDocuments } from '../begun/begun-documents';
import { KeptBound } from './kept-bound';
import { KeptDocuments } from './kept-documents';

/** A document that has been open for so long is kept, in ms: by then all that shows of it has come. */
const STAYED = 5000;
/** What was done goes into what is kept once nothing more is done for so long, in ms. */
const RESTS = 2000;

/** Documents that are opened are kept in this browser, and what is done to them goes into what is kept. */
@Injectable()
export class KeepingEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly begun = inject(BegunDocuments);
  private readonly kept = inject(KeptDocuments);
  private readonly bound = inject(KeptBound);
  private readonly live = inject(Live);
  private readonly snackBar = inject(MatSnackBar);
  private readonly store = inject(Store);
  private readonly told = new Set<string>();
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);

  readonly keep = createEffect(
    () =>
      merge(
        this.actions.pipe(ofType(documentActions.loaded)),
        toObservable(this.live.isConnected).pipe(filter((isConnected) => isConnected)),
      ).pipe(
        debounceTime(STAYED),
        filter(() => this.open().status === 'ready'),
        concatMap(() => this.keepNow(this.open().id!)),
      ),
    { dispatch: false },
  );

  /** What others have done; what was done here goes there as it leaves the outbox. */
  readonly log = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.heard),
        concatMap(async ({ documentId, news }) => {
          if (news.kind !== 'confirmed') return;
          await this.kept.log(documentId, news.operations).catch(unkept);
        }),
      ),
    { dispatch: false },
  );

  readonly advance = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.heard),
        filter(({ documentId, news }) => news.kind !== 'made' && this.kept.has(documentId)),
        debounceTime(RESTS),
        concatMap(({ documentId }) => this.kept.advance(documentId).catch(unkept)),
      ),
    { dispatch: false },
  );

  private async keepNow(id: string): Promise<void> {
    if (this.begun.has(id)) return;
    const wasKept = this.kept.has(id);
    try {
      if (wasKept) await this.refresh(id);
      if (this.bound.bytes() === 0 && !wasKept) return;
      const { kind } = await this.kept.keep(id, false);
      if (kind === 'no-room') this.tellNoRoom(id);
      await this.kept.advance(id);
    } catch (error) {
      // Without the server it is tried again when it is back.
      unkept(error);
    }
  }

  /** Once for each document: without the server it will not be there. */
  private tellNoRoom(id: string): void {
    if (this.told.has(id)) return;
    this.told.add(id);
    const words = 'There is no room on this device for this document: it needs the server.';
    this.snackBar.open(words, 'Close', { duration: 8000 });
  }

  /** What operations do not tell of. */
  private async refresh(documentId: string): Promise<void> {
    try {
      const onServer = await firstValueFrom(this.api.companion(documentId));
      const companion = (await this.begun.companionOf(documentId)) ?? onServer;
      this.store.dispatch(documentActions.companionChosen({ documentId, companion }));
    } catch (error) {
      if (isPassing(error)) return;
      const { title, advice } = troubleOf(error);
      this.snackBar.open(`${title}. ${advice}`, 'Close');
    }
  }
}

/** All is on the server, and comes from there the next time. */
function unkept(error: unknown): void {
  console.warn('A document is not kept here as it is now.', error);
}
