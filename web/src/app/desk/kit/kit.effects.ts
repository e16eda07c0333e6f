import { Injectable, inject } from '@angular/core';
import { eraserTargets } from '@stylet/core/document';
import { instruments } from '@stylet/core/ink';
import { Actions, createEffect, ofType, ROOT_EFFECTS_INIT } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { EMPTY, of, switchMap, tap, withLatestFrom } from 'rxjs';
import { z } from 'zod';
import { readKept } from '../../settings/kept';
import { eraserSizes, kitActions, kitFeature, penActions } from './kit.reducer';

const KEY = 'stylet.kit';

const penAction = z.enum(penActions);

const keptSchema = z.object({
  slots: z
    .array(
      z.object({
        id: z.string(),
        instrument: z.enum(instruments),
        color: z.string().regex(/^#[0-9a-f]{6}$/i),
        width: z.number().positive().max(60),
        smoothing: z.number().min(0).max(1),
      }),
    )
    .min(1),
  eraser: z.object({
    by: z.enum(['stroke', 'area']),
    target: z.enum(eraserTargets),
    size: z.number().min(eraserSizes.least).max(eraserSizes.most),
    springsBack: z.boolean(),
  }),
  buttons: z.object({ eraserEnd: penAction, barrel: penAction }),
});

/** Keeps the kit in this browser. */
@Injectable()
export class KitEffects {
  private readonly actions = inject(Actions);
  private readonly store = inject(Store);

  readonly find = createEffect(() =>
    this.actions.pipe(
      ofType(ROOT_EFFECTS_INIT),
      switchMap(() => {
        const kept = keptSchema.safeParse(readKept(localStorage, KEY));
        return kept.success ? of(kitActions.kitFound({ kit: kept.data })) : EMPTY;
      }),
    ),
  );

  readonly keep = createEffect(
    () =>
      this.actions.pipe(
        ofType(kitActions.slotChanged, kitActions.eraserChanged, kitActions.buttonsChanged),
        withLatestFrom(this.store.select(kitFeature.selectKept)),
        tap(([, kit]) => localStorage.setItem(KEY, JSON.stringify(kit))),
      ),
    { dispatch: false },
  );
}
