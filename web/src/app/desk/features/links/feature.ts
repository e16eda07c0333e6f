import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { LinkCardState } from './link-card-state';
import { LinkOverlay } from './link-overlay';
import { LinkMaking } from './link-making';

/** Links: those of the file and those made here, followed, shown where they lead, and changed. */
export const links: DeskFeature = {
  id: 'links',
  providers: [LinkCardState, LinkMaking],
  onPages: [{ id: 'links', order: 30, component: LinkOverlay, shows: () => () => true }],
  overlays: [
    {
      id: 'links.card',
      in: 'pages',
      load: () => import('./link-card').then((m) => m.LinkCard),
      shows: () => {
        const { shown } = inject(LinkCardState);
        return () => shown() !== undefined;
      },
    },
  ],
  selectionActions: [
    {
      id: 'links',
      order: 70,
      action: () => {
        const making = inject(LinkMaking);
        return {
          name: () => (making.selected() ? 'Where it leads …' : 'Make a link …'),
          run: () => void making.fromSelection(),
        };
      },
    },
  ],
  wordActions: [
    {
      id: 'links',
      icon: 'links',
      order: 40,
      action: () => {
        const making = inject(LinkMaking);
        return { name: () => 'Make a link', run: () => void making.fromText() };
      },
    },
  ],
  snipActions: [
    {
      id: 'links',
      icon: 'links',
      order: 10,
      action: () => {
        const making = inject(LinkMaking);
        return {
          name: () => 'Make a link of this area',
          run: (page, area) => void making.fromArea(page, area),
        };
      },
    },
  ],
};
