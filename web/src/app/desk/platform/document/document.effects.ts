import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { noHistory, type History } from '@stylet/core/document';
import { Actions, ROOT_EFFECTS_INIT, createEffect, ofType } from '@ngrx/effects';
import { catchError, forkJoin, from, filter, of, switchMap, tap } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { Outbox } from '../sync/outbox';
import { CatchingUp } from './catching-up';
import { documentActions } from './document.reducer';
import { HistoryStore } from './history-store';

/** So many annotations are read with the document, those nearest to where one was last; others when they are wanted. */
const AT_FIRST = 200;

@Injectable()
export class DocumentEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly history = inject(HistoryStore);
  private readonly snackBar = inject(MatSnackBar);
  private readonly catchingUp = inject(CatchingUp);

  /**
   * What waits to be sent is read first: that it is sent meanwhile is heard. Pages and annotations come apart; what was
   * done between is done to them once more, in order, which leaves them as it does.
   */
  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.opened),
      switchMap(({ id }) =>
        from(this.outbox.waiting(id)).pipe(
          switchMap((waiting) =>
            forkJoin([
              this.api.document(id),
              this.api.annotations(id, AT_FIRST),
              this.history.read(id).catch(withoutHistory),
            ]).pipe(
              switchMap(([document, { annotations, unread, revision }, history]) =>
                this.catchingUp
                  .between(id, Math.min(document.revision, revision), revision)
                  .then((since) =>
                    documentActions.loaded({
                      document,
                      annotations,
                      unread,
                      waiting,
                      since,
                      history,
                    }),
                  ),
              ),
            ),
          ),
          catchError((error: unknown) =>
            of(documentActions.loadFailed({ trouble: troubleOf(error) })),
          ),
        ),
      ),
    ),
  );

  readonly keep = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.stepMade),
        tap(({ documentId, kind, step }) => {
          this.history.add(documentId, kind, step.reversals).catch(withoutHistory);
        }),
      ),
    { dispatch: false },
  );

  /** Undo that had nothing left to take back says so; the step before is next. */
  readonly tell = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.stepMade),
        filter(({ step }) => step.operations.length === 0),
        tap(() => {
          const message = 'Left as it is: it has been changed in another window since.';
          this.snackBar.open(message, 'Close', { duration: 6000 });
        }),
      ),
    { dispatch: false },
  );

  readonly tidy = createEffect(
    () =>
      this.actions.pipe(
        ofType(ROOT_EFFECTS_INIT),
        tap(() => void this.history.tidy().catch(withoutHistory)),
      ),
    { dispatch: false },
  );
}

/** Work goes on without: only a reload will forget what could be undone. */
function withoutHistory(error: unknown): History {
  console.warn('This browser cannot keep what could be undone.', error);
  return noHistory;
}
