import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { ReadAloud } from './read-aloud';

/** Reads pages aloud, and marks what is read. */
export const readAloud: DeskFeature = {
  id: 'read-aloud',
  providers: [ReadAloud],
  overlays: [
    {
      id: 'read-aloud',
      in: 'pages',
      showsAlone: true,
      load: () => import('./read-aloud-bar').then((m) => m.ReadAloudBar),
      shows: () => inject(ReadAloud).isOn,
    },
  ],
  onPages: [
    {
      id: 'spoken',
      order: 40,
      load: () => import('./spoken-overlay').then((m) => m.SpokenOverlay),
      shows: () => {
        const { at } = inject(ReadAloud);
        return ({ id }) => at()?.pageId === id;
      },
    },
  ],
  commands: [
    {
      id: 'read-aloud',
      keys: ['a'],
      help: [{ keys: 'A', does: 'read aloud from here; pause, and go on' }],
      command: () => {
        const reading = inject(ReadAloud);
        return {
          run: () => {
            if (reading.isOn()) reading.pauseOrGoOn();
            else void reading.startAtSelection();
          },
        };
      },
    },
    {
      id: 'read-aloud.start',
      menu: { in: 'view', name: 'Read aloud', icon: 'readAloud', order: 10 },
      command: () => {
        const reading = inject(ReadAloud);
        return { run: () => void reading.start() };
      },
    },
  ],
  wordActions: [
    {
      id: 'read-aloud',
      icon: 'readAloud',
      order: 20,
      action: () => {
        const reading = inject(ReadAloud);
        return {
          name: () => 'Read aloud from here',
          tip: () => 'Read aloud from here, A',
          run: () => void reading.startAtSelection(),
        };
      },
    },
  ],
};
