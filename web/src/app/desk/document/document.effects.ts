import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, forkJoin, from, map, of, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { troubleOf } from '../../api/problem';
import { Outbox } from '../sync/outbox';
import { documentActions } from './document.reducer';

@Injectable()
export class DocumentEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);

  /** What waits to be sent is read first: if it is sent meanwhile, applying it again does no harm. */
  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.opened),
      switchMap(({ id }) =>
        from(this.outbox.waiting(id)).pipe(
          switchMap((waiting) =>
            forkJoin([this.api.document(id), this.api.annotations(id)]).pipe(
              map(([document, { annotations }]) =>
                documentActions.loaded({ document, annotations, waiting }),
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
}
