import { HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store, type Action } from '@ngrx/store';
import { MOST_LISTED, type LibraryQuery } from '@stylet/core/api';
import type { Operation } from '@stylet/core/document';
import {
  EMPTY,
  catchError,
  exhaustMap,
  filter,
  forkJoin,
  from,
  map,
  merge,
  mergeMap,
  of,
  switchMap,
  takeWhile,
  type Observable,
} from 'rxjs';
import { Api } from '../api/api';
import { BringIn, type UploadStep } from '../api/bring-in';
import { isPassing, troubleOf, type Trouble } from '../api/problem';
import type { Beside } from '../../kept/begun';
import { BegunDocuments } from '../begun/begun-documents';
import { Outbox } from '../desk/platform/sync/outbox';
import { Passwords, wantsPassword } from '../dialogs/passwords';
import { ServerAway } from '../kept/server-away';
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

/** A file on its way; its id is that of the document it becomes. */
interface Sending {
  readonly id: string;
  readonly file: File;
  readonly beside: readonly Beside[];
  readonly folder: string | undefined;
  readonly password?: string;
}

@Injectable()
export class LibraryEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly begun = inject(BegunDocuments);
  private readonly bringIn = inject(BringIn);
  private readonly outbox = inject(Outbox);
  private readonly passwords = inject(Passwords);
  private readonly naming = inject(NamingChoice);
  private readonly server = inject(ServerAway);
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
    const { id, file, beside, folder, password } = sending;
    if (this.server.isAway()) return from(this.begin(sending));
    const naming = this.naming.chosen();
    const bringing = { id, file, beside, name: file.name, folder, naming };
    const sent =
      password === undefined
        ? this.passwords.sending((kept) => this.bringIn.send(bringing, kept))
        : this.bringIn.send(bringing, password);
    // A network that has gone away may not say so to what is being sent.
    const isGone = this.server.changes.pipe(
      filter((isAway) => isAway),
      map((): UploadStep => {
        throw new HttpErrorResponse({ status: 0 });
      }),
    );
    return merge(sent, isGone).pipe(
      takeWhile(({ kind }) => kind !== 'done', true),
      map((step) => {
        if (step.kind === 'sending')
          return libraryActions.uploadAdvanced({ id, share: step.share });
        this.locked.delete(id);
        return libraryActions.uploadDone({ id, document: step.document });
      }),
      catchError((error: unknown) => {
        if (isPassing(error)) return from(this.begin(sending));
        const trouble = troubleOf(error);
        if (wantsPassword(trouble.code)) this.locked.set(id, sending);
        return of(libraryActions.uploadFailed({ id, trouble }));
      }),
    );
  }

  /** Without the server a document begins here. */
  private async begin({ id, file, beside, folder }: Sending): Promise<Action> {
    const { name } = file;
    const naming = this.naming.chosen();
    try {
      const place = folder === undefined ? {} : { folder };
      await this.begun.begin(id, { kind: 'file', file, name, naming, beside, ...place });
      return libraryActions.uploadBegun({ id });
    } catch (error) {
      return libraryActions.uploadFailed({ id, trouble: notKept(error) });
    }
  }
}

/** Why a file does not stay in this browser until the server is there. */
const notKept = (error: unknown): Trouble => ({
  code: 'begun-unavailable',
  title: 'The server does not answer, and this browser cannot keep the file',
  detail: String(error),
  advice: 'Bring it in again when the server is there.',
});
