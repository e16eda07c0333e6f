import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store, type Action } from '@ngrx/store';
import { MOST_LISTED, type LibraryQuery } from '@stylet/core/api';
import type { Operation } from '@stylet/core/document';
import {
  EMPTY,
  catchError,
  exhaustMap,
  forkJoin,
  from,
  map,
  merge,
  mergeMap,
  of,
  switchMap,
  type Observable,
} from 'rxjs';
import { Api } from '../api/api';
import { troubleOf } from '../api/problem';
import { Outbox } from '../desk/platform/sync/outbox';
import { Passwords, wantsPassword } from '../dialogs/passwords';
import { libraryActions, libraryFeature, type LibraryState } from './library.reducer';
import { NamingChoice } from './naming-choice';

const UPLOADS_AT_ONCE = 2;

/** Documents that come together. */
const PART = 100;

/** What to ask for, so that at least as many show as did before. */
function queryFor({ wanted: { folder, words, sort }, documents }: LibraryState): LibraryQuery {
  const limit = Math.min(MOST_LISTED, Math.max(PART, documents.length));
  if (words.trim() === '') return { folder: folder ?? 'none', sort, limit };
  return { title: words, sort, limit, ...(folder === undefined ? {} : { within: folder }) };
}

/** A file on its way. */
interface Sending {
  readonly id: string;
  readonly file: File;
  readonly folder: string | undefined;
  readonly password?: string;
}

@Injectable()
export class LibraryEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly passwords = inject(Passwords);
  private readonly naming = inject(NamingChoice);
  private readonly state = inject(Store).selectSignal(libraryFeature.selectLibraryState);
  /** Files that wait for their passwords. */
  private readonly locked = new Map<string, Sending>();

  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(libraryActions.opened, libraryActions.wanted),
      switchMap(() =>
        // The outbox is read before the server is asked: what is sent in between is in one of the two, never in neither.
        from(this.waiting()).pipe(
          switchMap((waiting) =>
            forkJoin({
              part: this.api.documents(queryFor(this.state())),
              folderList: this.api.folders(),
            }).pipe(map((arrived) => libraryActions.documentsArrived({ ...arrived, waiting }))),
          ),
          catchError((error: unknown) =>
            of(libraryActions.documentsFailed({ trouble: troubleOf(error) })),
          ),
        ),
      ),
    ),
  );

  readonly more = createEffect(() =>
    this.actions.pipe(
      ofType(libraryActions.moreWanted),
      exhaustMap(() => {
        const { next: after } = this.state();
        if (after === null) return EMPTY;
        return from(this.waiting()).pipe(
          switchMap((waiting) =>
            this.api
              .documents({ ...queryFor(this.state()), limit: PART, after })
              .pipe(map((part) => libraryActions.moreArrived({ part, after, waiting }))),
          ),
          catchError((error: unknown) =>
            of(libraryActions.documentsFailed({ trouble: troubleOf(error) })),
          ),
        );
      }),
    ),
  );

  readonly upload = createEffect(() =>
    merge(
      this.actions.pipe(
        ofType(libraryActions.filesChosen),
        mergeMap(({ files, folder }) => from(files.map((file): Sending => ({ ...file, folder })))),
      ),
      this.actions.pipe(
        ofType(libraryActions.passwordGiven),
        mergeMap(({ id, password }): Sending[] => {
          const locked = this.locked.get(id);
          return locked ? [{ ...locked, password }] : [];
        }),
      ),
    ).pipe(mergeMap((sending) => this.send(sending), UPLOADS_AT_ONCE)),
  );

  /** What the server has not taken yet; a browser that cannot keep it has said so when it was made. */
  private async waiting(): Promise<Operation[]> {
    try {
      return await this.outbox.all();
    } catch (error) {
      console.error(error);
      return [];
    }
  }

  private send(sending: Sending): Observable<Action> {
    const { id, file, folder, password } = sending;
    const naming = this.naming.chosen();
    const sent =
      password === undefined
        ? this.passwords.sending((kept) => this.api.bringIn(file, folder, naming, kept))
        : this.api.bringIn(file, folder, naming, password);
    return sent.pipe(
      map((step) => {
        if (step.kind === 'sending')
          return libraryActions.uploadAdvanced({ id, share: step.share });
        this.locked.delete(id);
        return libraryActions.uploadDone({ id, document: step.document });
      }),
      catchError((error: unknown) => {
        const trouble = troubleOf(error);
        if (wantsPassword(trouble.code)) this.locked.set(id, sending);
        return of(libraryActions.uploadFailed({ id, trouble }));
      }),
    );
  }
}
