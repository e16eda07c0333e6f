import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { BesideHost } from './beside-host';
import { Companion } from './companion';

/** A notebook that is kept beside the document. */
export const companion: DeskFeature = {
  id: 'companion',
  providers: [BesideHost, Companion],
  starts: () => void inject(BesideHost),
  overlays: [
    {
      id: 'companion',
      in: 'pages',
      load: () => import('./companion-window').then((m) => m.CompanionWindow),
      shows: () => {
        const { shown } = inject(Companion);
        return () => shown() !== undefined;
      },
    },
  ],
  onStrip: [
    {
      id: 'companion.beside',
      load: () => import('./written-beside').then((m) => m.WrittenBeside),
      shows: () => (page) => page.beside !== undefined && page.beside !== null,
    },
  ],
  commands: [
    {
      id: 'companion',
      keys: ['n'],
      help: [{ keys: 'N', does: 'the companion, a notebook kept beside the document' }],
      menu: { in: 'more', name: 'Companion', icon: 'companion', order: 500 },
      command: () => {
        const kept = inject(Companion);
        return { run: () => void kept.toggle() };
      },
    },
  ],
};
