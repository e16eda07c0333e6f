import { Injectable, inject } from '@angular/core';
import { kitSchema, type Kit } from '@stylet/core/api';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  EMPTY,
  catchError,
  concat,
  debounceTime,
  defer,
  fromEvent,
  map,
  merge,
  of,
  switchMap,
  tap,
  withLatestFrom,
  type Observable,
} from 'rxjs';
import { Api } from '../../../api/api';
import { readKept } from '../../../settings/kept';
import { kitActions, kitFeature } from './kit.reducer';
import { accountStorage } from '../../../storage/account';

/** The kit as this browser last knew it: at hand at once, and when the server is away. */
const KEY = 'stylet.kit';
/** Set while the server has not been told of the last change. */
const UNSENT = 'stylet.kit.unsent';

/** Keeps the kit for the account, with a copy in this browser. */
@Injectable()
export class KitEffects {
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);
  private readonly api = inject(Api);

  readonly find = createEffect(() =>
    this.actions.pipe(
      ofType(ROOT_EFFECTS_INIT),
      switchMap(() => concat(this.here(), this.onServer())),
      map((kit) => kitActions.kitFound({ kit })),
    ),
  );

  readonly keep = createEffect(
    () =>
      merge(
        this.actions.pipe(
          ofType(
            kitActions.slotChanged,
            kitActions.slotAdded,
            kitActions.slotRemoved,
            kitActions.slotMoved,
            kitActions.kitRead,
            kitActions.eraserChanged,
            kitActions.buttonsChanged,
            kitActions.handsChanged,
            kitActions.shorthandChanged,
            kitActions.lassoChanged,
            kitActions.textStylesChanged,
            kitActions.snipChanged,
            kitActions.toolChanged,
            kitActions.colorSettled,
            kitActions.colorPicked,
          ),
          tap(() => accountStorage.setItem(UNSENT, 'true')),
        ),
        fromEvent(window, 'online'),
      ).pipe(
        withLatestFrom(this.store.select(kitFeature.selectKit)),
        map(([, kit]) => kit),
        tap((kit) => accountStorage.setItem(KEY, JSON.stringify(kit))),
        // A slider that is dragged says something new at every step.
        debounceTime(400),
        switchMap((kit) => this.send(kit)),
      ),
    { dispatch: false },
  );

  private here(): Observable<Kit> {
    return defer(() => {
      const kept = kitSchema.safeParse(readKept(accountStorage, KEY));
      return kept.success ? of(kept.data) : EMPTY;
    });
  }

  /** The account's kit; but a change the server missed goes to it instead. */
  private onServer(): Observable<Kit> {
    return defer(() => {
      const kept = kitSchema.safeParse(readKept(accountStorage, KEY));
      if (kept.success && accountStorage.getItem(UNSENT))
        return this.send(kept.data).pipe(switchMap(() => EMPTY));
      return this.api.kit().pipe(
        // What was changed while it was asked for goes to the server instead.
        switchMap(({ kit }) => (kit && !accountStorage.getItem(UNSENT) ? of(kit) : EMPTY)),
        tap((kit) => accountStorage.setItem(KEY, JSON.stringify(kit))),
        catchError((error: unknown) => this.away(error)),
      );
    });
  }

  private send(kit: Kit): Observable<void> {
    return this.api.keepKit(kit).pipe(
      tap(() => accountStorage.removeItem(UNSENT)),
      catchError((error: unknown) => this.away(error)),
    );
  }

  /** Nothing is lost: the copy here goes to the server with the next change or the next start. */
  private away(error: unknown): Observable<never> {
    console.warn('The server could not be asked about the kit; this browser keeps it.', error);
    return EMPTY;
  }
}
