import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { FindBar } from './find-bar';
import { Finding } from './finding';

/** Finds words in the open document. */
export const find: DeskFeature = {
  id: 'find',
  providers: [Finding],
  overlays: [
    {
      id: 'find',
      in: 'beside',
      // At hand: whoever presses Ctrl F types at once, and letters are keys of the desk.
      component: FindBar,
      shows: () => inject(Finding).isOpen,
    },
  ],
  onPages: [
    {
      id: 'hits',
      order: 20,
      load: () => import('./hit-overlay').then((m) => m.HitOverlay),
      shows: () => inject(Finding).isOpen,
    },
  ],
  marks: () => inject(Finding).matches,
  arrived: () => {
    const finding = inject(Finding);
    return ({ find: search, page, y }) => search && finding.landOn(search, page, y);
  },
  commands: [
    {
      id: 'find',
      keys: ['ctrl+f'],
      isForBoardToo: true,
      help: [{ keys: 'Ctrl F', does: 'find words; Enter and Shift Enter go on and back' }],
      command: () => {
        const finding = inject(Finding);
        return { run: () => finding.open() };
      },
    },
    {
      id: 'find.toggle',
      button: { name: 'Find', icon: 'search', tip: 'Find, Ctrl F', order: 20, shows: 'roomy' },
      command: () => {
        const { isOpen } = inject(Finding);
        return { isOn: isOpen, run: () => isOpen.update((is) => !is) };
      },
    },
    {
      id: 'find.close',
      keys: ['escape'],
      rank: 40,
      command: () => {
        const finding = inject(Finding);
        return { can: finding.isOpen, run: () => finding.close() };
      },
    },
  ],
};
