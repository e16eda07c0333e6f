import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, forkJoin, from, map, mergeMap, of, switchMap } from 'rxjs';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { libraryActions } from './library.reducer';

const UPLOADS_AT_ONCE = 2;

@Injectable()
export class LibraryEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);

  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(libraryActions.opened),
      switchMap(() =>
        forkJoin({ documents: this.api.documents(), folders: this.api.folders() }).pipe(
          map((arrived) => libraryActions.documentsArrived(arrived)),
          catchError((error: unknown) =>
            of(libraryActions.documentsFailed({ trouble: troubleOf(error) })),
          ),
        ),
      ),
    ),
  );

  readonly upload = createEffect(() =>
    this.actions.pipe(
      ofType(libraryActions.filesChosen),
      mergeMap(({ files, folder }) => from(files.map((file) => ({ ...file, folder })))),
      mergeMap(
        ({ id, file, folder }) =>
          this.api.bringIn(file, folder).pipe(
            map((step) =>
              step.kind === 'done'
                ? libraryActions.uploadDone({ id, document: step.document })
                : libraryActions.uploadAdvanced({ id, share: step.share }),
            ),
            catchError((error: unknown) =>
              of(libraryActions.uploadFailed({ id, trouble: troubleOf(error) })),
            ),
          ),
        UPLOADS_AT_ONCE,
      ),
    ),
  );
}
