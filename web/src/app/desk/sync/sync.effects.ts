import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import type { Action } from '@ngrx/store';
import { concatMap, filter, from, fromEvent, merge, tap } from 'rxjs';
import { documentActions } from '../document/document.reducer';
import { Sender } from './sender';

@Injectable()
export class SyncEffects {
  private readonly actions = inject(Actions);
  private readonly sender = inject(Sender);

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

  /** What an earlier visit left behind is sent at the start, and when the network is back. */
  readonly resume = createEffect(
    () =>
      merge(this.actions.pipe(ofType(ROOT_EFFECTS_INIT)), fromEvent(window, 'online')).pipe(
        concatMap(() => this.sender.wake().catch((error: unknown) => console.error(error))),
      ),
    { dispatch: false },
  );
}
