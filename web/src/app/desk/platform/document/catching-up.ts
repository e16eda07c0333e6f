import { Injectable, inject } from '@angular/core';
import type { ConfirmedOperation } from '@stylet/core/document';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  EMPTY,
  exhaustMap,
  filter,
  firstValueFrom,
  fromEvent,
  merge,
  switchMap,
  timer,
} from 'rxjs';
import { Api } from '../../../api/api';
import { isPassing } from '../../../api/problem';
import { BegunDocuments } from '../../../begun/begun-documents';
import { Live } from '../live/live';
import { documentActions, documentFeature } from './document.reducer';

/** Milliseconds until the server is asked again that did not say what has been done. */
const AGAIN = 3000;
/** So long, in ms, what is missing may still come by itself where the server tells of what is done. */
const PATIENCE = 3000;

/** Asks the server for what was done to the open document that is not known here. */
@Injectable({ providedIn: 'root' })
export class CatchingUp {
  private readonly api = inject(Api);
  private readonly actions = inject(Actions);
  private readonly begun = inject(BegunDocuments);
  private readonly live = inject(Live);
  private readonly store = inject(Store);
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);
  private readonly isBehind = this.store.selectSignal(documentFeature.selectIsBehind);

  /**
   * When there is more than is known; when what is kept here has been opened; and, unless one is told of it, when the window is
   * looked at again.
   */
  readonly catchUp = createEffect(
    () =>
      merge(
        this.store
          .select(documentFeature.selectIsBehind)
          .pipe(
            switchMap((isBehind) =>
              isBehind ? timer(this.live.isConnected() ? PATIENCE : 0) : EMPTY,
            ),
          ),
        merge(
          fromEvent(document, 'visibilitychange').pipe(filter(() => !document.hidden)),
          this.actions.pipe(
            ofType(documentActions.loaded),
            filter(({ isKept }) => isKept === true),
          ),
        ).pipe(filter(() => !this.live.isConnected())),
      ).pipe(
        filter(() => this.open().status === 'ready' && !this.begun.has(this.open().id!)),
        exhaustMap(() => this.asked()),
      ),
    { dispatch: false },
  );

  /** What was done from one revision to another, in order. */
  async between(id: string, from: number, to: number): Promise<ConfirmedOperation[]> {
    const all: ConfirmedOperation[] = [];
    for (let at = from; at < to;) {
      const { operations } = await firstValueFrom(this.api.operationsSince(id, at));
      if (operations.length === 0) break;
      all.push(...operations);
      at = operations[operations.length - 1].revision;
    }
    return all;
  }

  private async asked(): Promise<void> {
    do {
      const { id, revision } = this.open();
      const documentId = id!;
      try {
        const { operations } = await firstValueFrom(this.api.operationsSince(documentId, revision));
        // Another document is open meanwhile.
        if (this.open().id !== documentId) continue;
        // Behind, and no operation says by what: all is read anew.
        if (operations.length === 0 && this.isBehind())
          return this.store.dispatch(documentActions.opened({ id: documentId }));
        const news = { kind: 'confirmed', operations } as const;
        this.store.dispatch(documentActions.heard({ documentId, news, isFromHere: false }));
      } catch (error) {
        if (!isPassing(error)) {
          // What is made here is saved all the same, and the next answer asks again.
          console.error('What others have done cannot be read.', error);
          return;
        }
        // The server is away, which the bar says.
        await new Promise((resolve) => setTimeout(resolve, AGAIN));
      }
    } while (this.open().status === 'ready' && this.isBehind());
  }
}
