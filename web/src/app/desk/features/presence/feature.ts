import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { Presence } from './presence';

/** Other windows that have the document open, on this device or on others. */
export const presence: DeskFeature = {
  id: 'presence',
  providers: [Presence],
  starts: () => void inject(Presence),
  overlays: [
    {
      id: 'presence',
      in: 'pages',
      load: () => import('./presence-bar').then((m) => m.PresenceBar),
      shows: () => {
        const { others } = inject(Presence);
        return () => others().length > 0;
      },
    },
  ],
  onPages: [
    {
      id: 'presence.pens',
      order: 90,
      load: () => import('./pens-on-page').then((m) => m.PensOnPage),
      shows: () => {
        const { others } = inject(Presence);
        return ({ id }) => others().some(({ pen }) => pen?.pageId === id);
      },
    },
  ],
  // Whoever goes somewhere does not follow any more.
  listens: () => {
    const presence = inject(Presence);
    const stop = (): void => {
      if (presence.followed()) presence.stopFollowing();
    };
    return (strip) => {
      const types = ['wheel', 'pointerdown'] as const;
      for (const type of types) strip.addEventListener(type, stop, { passive: true });
      return () => {
        for (const type of types) strip.removeEventListener(type, stop);
      };
    };
  },
  commands: [
    {
      id: 'presence.stop',
      keys: ['escape'],
      rank: 35,
      command: () => {
        const presence = inject(Presence);
        return {
          can: () => presence.followed() !== undefined,
          run: () => presence.stopFollowing(),
        };
      },
    },
    {
      id: 'presence.hide',
      menu: { in: 'view', name: 'Let other windows see me', order: 40 },
      command: () => {
        const presence = inject(Presence);
        return {
          isOn: () => !presence.isHidden(),
          run: () => presence.hide(!presence.isHidden()),
        };
      },
    },
  ],
};
