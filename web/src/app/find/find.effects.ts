import { Injectable, inject } from '@angular/core';
import type { Search } from '@stylet/core/api';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { catchError, concatMap, filter, map, of, switchMap, withLatestFrom } from 'rxjs';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { findActions, findFeature } from './find.reducer';

@Injectable()
export class FindEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly store = inject(Store);

  /** What is asked meanwhile takes the place of what was asked before. */
  readonly ask = createEffect(() =>
    this.actions.pipe(
      ofType(findActions.asked),
      switchMap(({ search }) =>
        search.typed.trim() === ''
          ? of()
          : this.api.find(search).pipe(
              map((result) => findActions.answered({ search, result })),
              catchError(failed(search)),
            ),
      ),
    ),
  );

  readonly more = createEffect(() =>
    this.actions.pipe(
      ofType(findActions.moreAsked),
      withLatestFrom(this.store.select(findFeature.selectFindState)),
      concatMap(([, { search, result }]) =>
        this.api.find(search, { from: result?.documents.length ?? 0 }).pipe(
          map((more) => findActions.moreAnswered({ search, result: more })),
          catchError(failed(search)),
        ),
      ),
    ),
  );

  readonly allInDocument = createEffect(() =>
    this.actions.pipe(
      ofType(findActions.allInDocumentAsked),
      withLatestFrom(this.store.select(findFeature.selectSearch)),
      concatMap(([{ id }, search]) =>
        this.api.find(search, { document: id }).pipe(
          map(({ documents: [document] }) => document),
          filter((document) => document !== undefined),
          map((document) => findActions.allInDocumentAnswered({ search, document })),
          catchError(failed(search)),
        ),
      ),
    ),
  );
}

const failed = (search: Search) => (error: unknown) =>
  of(findActions.failed({ search, trouble: troubleOf(error) }));
