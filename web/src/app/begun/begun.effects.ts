import { Injectable, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import {
  concatMap,
  debounceTime,
  exhaustMap,
  filter,
  map,
  merge,
  pairwise,
  switchMap,
  timer,
} from 'rxjs';
import { documentActions } from '../desk/platform/document/document.reducer';
import { Sender } from '../desk/platform/sync/sender';
import { ServerAway } from '../kept/server-away';
import { BegunDocuments } from './begun-documents';
import { BegunSender } from './begun-sender';

/** So long, in ms, until a server is asked again that answers, and not this. */
const AGAIN = 10_000;
/** What comes together is sent together, in ms. */
const TOGETHER = 50;

/** Documents that have begun here are sent when the server is there. */
@Injectable()
export class BegunEffects {
  private readonly actions = inject(Actions);
  private readonly begun = inject(BegunDocuments);
  private readonly sender = inject(BegunSender);
  private readonly operations = inject(Sender);
  private readonly server = inject(ServerAway);

  readonly send = createEffect(
    () =>
      merge(
        toObservable(this.begun.list).pipe(
          map((list) => list.filter(({ refusal }) => !refusal).length),
        ),
        this.server.changes.pipe(map(() => this.begun.list().length)),
      ).pipe(
        debounceTime(TOGETHER),
        switchMap((count) => (count > 0 && !this.server.isAway() ? timer(0, AGAIN) : [])),
        exhaustMap(() => this.sender.sendAll().catch((error: unknown) => console.error(error))),
      ),
    { dispatch: false },
  );

  /** Whichever window has sent a document: what was written on it in this one goes now. */
  readonly goOn = createEffect(
    () =>
      toObservable(this.begun.list).pipe(
        pairwise(),
        filter(([before]) => before.some(({ id }) => !this.begun.has(id))),
        concatMap(() => this.operations.wake().catch((error: unknown) => console.error(error))),
      ),
    { dispatch: false },
  );

  readonly rename = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.stepMade),
        filter(({ documentId }) => this.begun.has(documentId)),
        concatMap(async ({ documentId, step }) => {
          for (const { effect } of step.operations)
            if (effect.type === 'document.rename')
              await this.begun.rename(documentId, effect.title).catch(console.error);
        }),
      ),
    { dispatch: false },
  );
}
