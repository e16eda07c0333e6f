import { Injectable, inject } from '@angular/core';
import { Actions, createEffect } from '@ngrx/effects';
import type { Action } from '@ngrx/store';
import { Observable, filter, tap } from 'rxjs';
import { kitActions } from '../desk/platform/kit/kit.reducer';
import { paneChannel } from './pane-channel';

/** What each pane chooses for itself, or finds out by itself. */
const OWN: readonly string[] = [kitActions.kitFound.type, kitActions.modeChosen.type];
const KIT = new Set<string>(
  Object.values(kitActions)
    .map(({ type }) => type as string)
    .filter((type) => !OWN.includes(type)),
);

/** The pen taken in one pane is in hand in all of them. */
@Injectable()
export class KitTogether {
  private readonly actions = inject(Actions);
  private readonly channel = paneChannel('kit');
  /** Heard from another pane: it is not passed on. */
  private readonly heard = new WeakSet<Action>();

  readonly tell = createEffect(
    () =>
      this.actions.pipe(
        filter((action) => KIT.has(action.type) && !this.heard.has(action)),
        tap((action) => this.channel.postMessage(action)),
      ),
    { dispatch: false },
  );

  readonly hear = createEffect(
    () =>
      new Observable<Action>((observer) => {
        this.channel.onmessage = ({ data }: MessageEvent<Action>) => {
          // From this very program, in another pane.
          if (!KIT.has(data.type)) return;
          this.heard.add(data);
          observer.next(data);
        };
      }),
  );
}
