import { inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { ShorthandMeanings } from './meanings';
import { ShorthandOffer } from './shorthand-offer';

/** Strokes that do something instead of staying as ink. */
export const shorthand: DeskFeature = {
  id: 'shorthand',
  providers: [ShorthandMeanings, ShorthandOffer],
  meanings: () => {
    const meanings = inject(ShorthandMeanings);
    return (stroke) => meanings.of(stroke);
  },
  commands: [
    {
      id: 'shorthand',
      menu: { in: 'more', name: 'Shorthand', icon: 'shorthand', order: 700 },
      command: () => {
        const dialog = inject(MatDialog);
        const open = async (): Promise<void> => {
          const { ShorthandDialog } = await import('./shorthand-dialog');
          dialog.open(ShorthandDialog, { width: '480px' });
        };
        return { run: () => void open() };
      },
    },
  ],
};
