import { inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { HandsCardState } from './hands-card-state';
import { TouchTaps } from './touch-taps';

/** What fingers do, which hand writes, and where it rests. */
export const hands: DeskFeature = {
  id: 'hands',
  providers: [HandsCardState, TouchTaps],
  listens: () => {
    const taps = inject(TouchTaps);
    return (strip) => taps.listen(strip);
  },
  overlays: [
    {
      id: 'hands.resting',
      in: 'pages',
      load: () => import('./resting-area').then((m) => m.RestingArea),
      shows: () => {
        const set = inject(Store).selectSignal(kitFeature.selectHands);
        return () => set()?.restingArea !== undefined;
      },
    },
    {
      id: 'hands.card',
      in: 'pages',
      load: () => import('./hands-card').then((m) => m.HandsCard),
      shows: () => inject(HandsCardState).isShown,
    },
  ],
  commands: [
    {
      id: 'hands',
      menu: { in: 'more', name: 'Hands', icon: 'hands', order: 600 },
      command: () => {
        const taps = inject(TouchTaps);
        return { run: () => void taps.setUp() };
      },
    },
  ],
};
