import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { CloseUp } from './close-up';

/** A strip in which one writes large what is small on the page. */
export const closeUp: DeskFeature = {
  id: 'close-up',
  providers: [CloseUp],
  aids: [
    {
      id: 'close-up',
      name: 'Close-up',
      icon: 'closeUp',
      key: 'C',
      aid: () => {
        const strip = inject(CloseUp);
        return { isOn: () => strip.isOpen(), toggle: () => strip.toggle() };
      },
    },
  ],
  overlays: [
    {
      id: 'close-up',
      in: 'pages',
      load: () => import('./close-up-strip').then((m) => m.CloseUpStrip),
      shows: () => inject(CloseUp).isOpen,
    },
  ],
  onStrip: [
    {
      id: 'close-up.frame',
      load: () => import('./close-up-frame').then((m) => m.CloseUpFrame),
      shows: () => {
        const { place } = inject(CloseUp);
        return (_page, index) => place()?.pageIndex === index;
      },
    },
  ],
};
