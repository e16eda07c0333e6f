import { Injectable, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import type { Action } from '@ngrx/store';
import { concatMap, filter, from, fromEvent, map, merge, tap } from 'rxjs';
import { documentActions } from '../document/document.reducer';
import { BringingBack } from '../document/bringing-back';
import { ServerAway } from '../../../kept/server-away';
import { Live } from '../live/live';
import { Sender } from './sender';
import { syncActions } from './sync.reducer';

@Injectable()
export class SyncEffects {
  private readonly actions = inject(Actions);
  private readonly sender = inject(Sender);
  private readonly bringingBack = inject(BringingBack);
  private readonly live = inject(Live);
  private readonly serverAway = inject(ServerAway);

  /** Every change goes to the outbox first and from there to the server. */
  readonly keep = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.stepMade),
      filter(({ step }) => step.operations.length > 0),
      tap(({ step }) => this.sender.announce(step.operations)),
      concatMap(({ step }) => from(this.sender.keep(step.operations))),
      concatMap((actions: Action[]) => actions),
    ),
  );

  /** What is written on a page that somebody has removed is kept, and the page can be had back. */
  readonly tellRemoved = createEffect(
    () =>
      this.actions.pipe(
        ofType(syncActions.writtenOnRemoved),
        tap(({ documentId, removedPages }) => {
          const [{ page, by }] = removedPages;
          const pages =
            removedPages.length === 1 ? 'The page you wrote on' : 'The pages you wrote on';
          const were = removedPages.length === 1 ? 'was' : 'were';
          const label = removedPages.length === 1 && page.label ? ` (${page.label})` : '';
          const words = `${pages}${label} ${were} removed by ${by || 'somebody'}. What you wrote is kept.`;
          this.bringingBack.offer(
            words,
            documentId,
            removedPages.map(({ page }) => page),
          );
        }),
      ),
    { dispatch: false },
  );

  readonly notice = createEffect(() =>
    this.serverAway.changes.pipe(
      map((isAway) => (isAway ? syncActions.serverAway() : syncActions.serverBack())),
    ),
  );

  /** What an earlier visit left behind is sent at the start, and when the network or the server is back. */
  readonly resume = createEffect(
    () =>
      merge(
        this.actions.pipe(ofType(ROOT_EFFECTS_INIT)),
        fromEvent(window, 'online'),
        toObservable(this.live.isConnected).pipe(filter((isConnected) => isConnected)),
      ).pipe(concatMap(() => this.sender.wake().catch((error: unknown) => console.error(error)))),
    { dispatch: false },
  );
}
