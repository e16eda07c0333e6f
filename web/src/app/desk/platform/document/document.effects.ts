import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { ReadingPlace } from '@stylet/core/api';
import {
  applyAll,
  documentState,
  effectsUnseen,
  noHistory,
  type History,
} from '@stylet/core/document';
import { Actions, ROOT_EFFECTS_INIT, createEffect, ofType } from '@ngrx/effects';
import {
  catchError,
  filter,
  firstValueFrom,
  forkJoin,
  from,
  map,
  merge,
  of,
  switchMap,
  tap,
  timer,
} from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf } from '../../../api/problem';
import { BegunDocuments } from '../../../begun/begun-documents';
import { KeptDocuments, type KeptOpening } from '../../../kept/kept-documents';
import { Outbox } from '../sync/outbox';
import { CatchingUp } from './catching-up';
import { documentActions } from './document.reducer';
import { HistoryStore } from './history-store';

/** So many annotations are read with the document, those nearest to where one was last; others when they are wanted. */
const AT_FIRST = 100;
/** So long, in ms, what is kept waits to be shown until the server has said where one was last. */
const SOON = 150;

type Opening = Omit<KeptOpening, 'revision' | 'hasOwnPlace'> & { readonly isKept?: boolean };

@Injectable()
export class DocumentEffects {
  private readonly actions = inject(Actions);
  private readonly api = inject(Api);
  private readonly outbox = inject(Outbox);
  private readonly history = inject(HistoryStore);
  private readonly snackBar = inject(MatSnackBar);
  private readonly catchingUp = inject(CatchingUp);
  private readonly begun = inject(BegunDocuments);
  private readonly kept = inject(KeptDocuments);

  /** What waits to be sent is read first: that it is sent meanwhile is heard. */
  readonly load = createEffect(() =>
    this.actions.pipe(
      ofType(documentActions.opened),
      switchMap(({ id }) =>
        from(this.outbox.waiting(id)).pipe(
          switchMap((waiting) =>
            forkJoin([this.opening(id), this.history.read(id).catch(withoutHistory)]).pipe(
              map(([opening, history]) => documentActions.loaded({ ...opening, waiting, history })),
            ),
          ),
          catchError((error: unknown) =>
            of(documentActions.loadFailed({ trouble: troubleOf(error) })),
          ),
        ),
      ),
    ),
  );

  /** From here if it is kept here, from the server otherwise. */
  private async opening(id: string): Promise<Opening> {
    const kept = await this.kept.opening(id, AT_FIRST);
    if (!kept) return this.fromServer(id);
    const [isBegun, begunBeside] = await this.begunHere(id);
    const place = kept.hasOwnPlace || isBegun ? undefined : await this.lastPlace(id);
    const document = {
      ...kept.document,
      ...(place ? { place } : {}),
      ...(begunBeside ? { companion: begunBeside } : {}),
    };
    return { ...kept, document, isKept: !isBegun };
  }

  /** Whether the document has begun here, and the notebook that has begun beside it. */
  private begunHere(id: string) {
    return Promise.all([this.begun.isBegun(id), this.begun.companionOf(id)]).catch(
      (error: unknown) => {
        console.warn('What has begun here cannot be read.', error);
        return [false, undefined] as const;
      },
    );
  }

  /** Where one was last, on whatever device, if the server says so at once. */
  private async lastPlace(id: string): Promise<ReadingPlace | null | undefined> {
    const asked = this.api.reading(id).pipe(
      map(({ place }) => place),
      catchError(() => of(undefined)),
    );
    return firstValueFrom(merge(asked, timer(SOON).pipe(map(() => undefined))));
  }

  /** Pages and annotations come apart: whichever came at the earlier revision is brought to the later one. */
  private async fromServer(id: string): Promise<Opening> {
    const [document, { annotations, unread, revision }] = await Promise.all([
      firstValueFrom(this.api.document(id)),
      firstValueFrom(this.api.annotations(id, AT_FIRST)),
    ]);
    const [from, to] = [document.revision, revision].sort((a, b) => a - b);
    const since = await this.catchingUp.between(id, from, to);
    const read = new Set(annotations.map((one) => one.id));
    const effects = effectsUnseen(since, (each) => (read.has(each) ? revision : undefined));
    const { title, landmarks, pages } = document;
    const state = applyAll(documentState(title, annotations, landmarks, pages), effects);
    return {
      document: {
        ...document,
        title: state.title,
        landmarks: Object.values(state.landmarks),
        pages: Object.values(state.pages),
        revision: since.at(-1)?.revision ?? from,
      },
      annotations: Object.values(state.annotations).flatMap((page) => Object.values(page)),
      unread,
      since: [],
    };
  }

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
