import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { ViewState } from '../../platform/view/view-state';
import { PageActions } from './page-actions';
import { PageSupplies } from './page-supplies';

/** All pages at a glance: to be moved, turned, removed, and put in. */
export const board: DeskFeature = {
  id: 'board',
  providers: [PageActions, PageSupplies],
  overlays: [
    {
      id: 'board',
      in: 'pages',
      load: () => import('./page-board').then((m) => m.PageBoard),
      shows: () => inject(ViewState).isBoardOpen,
    },
  ],
  commands: [
    {
      id: 'board',
      keys: ['o'],
      isForBoardToo: true,
      help: [
        { keys: 'O', does: 'page board' },
        { keys: 'R, Del, Ctrl D', does: 'on the page board: turn, remove, duplicate pages' },
        { keys: 'Alt ← / Alt →', does: 'on the page board: move pages' },
        { keys: 'Insert', does: 'on the page board: put in pages' },
      ],
      button: {
        name: 'Page board',
        icon: 'pageBoard',
        tip: 'Page board, key O',
        order: 30,
        shows: 'roomy',
      },
      command: () => {
        const { isBoardOpen } = inject(ViewState);
        return { isOn: isBoardOpen, run: () => isBoardOpen.update((is) => !is) };
      },
    },
  ],
};
