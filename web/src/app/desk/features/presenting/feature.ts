import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { Presenting } from './presenting';

/** Shows the document to others, one page at a time. */
export const presenting: DeskFeature = {
  id: 'presenting',
  providers: [Presenting],
  // It takes keys before anything else on the desk.
  starts: () => void inject(Presenting),
  overlays: [
    {
      id: 'presenting.bar',
      in: 'pages',
      showsAlone: true,
      load: () => import('./presenting-bar').then((m) => m.PresentingBar),
      shows: () => inject(Presenting).isOn,
    },
    {
      id: 'presenting.trail',
      in: 'pages',
      showsAlone: true,
      load: () => import('./trail').then((m) => m.Trail),
      shows: () => {
        const { isOn, hasTrail } = inject(Presenting);
        return () => isOn() && hasTrail();
      },
    },
  ],
  commands: [
    {
      id: 'present',
      keys: ['f'],
      help: [{ keys: 'F', does: 'present: one page at a time; Q points with a trail, Esc ends' }],
      menu: { in: 'view', name: 'Present', order: 30 },
      command: () => {
        const shown = inject(Presenting);
        return { run: () => shown.start() };
      },
    },
  ],
};
