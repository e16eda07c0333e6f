import { Injectable, inject } from '@angular/core';
import { instruments } from '@stylet/core/ink';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { EMPTY, of, switchMap, tap, withLatestFrom } from 'rxjs';
import { z } from 'zod';
import { readKept } from '../../settings/kept';
import { kitActions, kitFeature } from './kit.reducer';

const KEY = 'stylet.kit';

const slotsSchema = z
  .array(
    z.object({
      id: z.string(),
      instrument: z.enum(instruments),
      color: z.string().regex(/^#[0-9a-f]{6}$/i),
      width: z.number().positive().max(60),
      smoothing: z.number().min(0).max(1),
    }),
  )
  .min(1);

/** Keeps the kit in this browser. */
@Injectable()
export class KitEffects {
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);

  readonly find = createEffect(() =>
    this.actions.pipe(
      ofType(ROOT_EFFECTS_INIT),
      switchMap(() => {
        const kept = slotsSchema.safeParse(readKept(localStorage, KEY));
        return kept.success ? of(kitActions.kitFound({ slots: kept.data })) : EMPTY;
      }),
    ),
  );

  readonly keep = createEffect(
    () =>
      this.actions.pipe(
        ofType(kitActions.slotChanged),
        withLatestFrom(this.store.select(kitFeature.selectSlots)),
        tap(([, slots]) => localStorage.setItem(KEY, JSON.stringify(slots))),
      ),
    { dispatch: false },
  );
}
