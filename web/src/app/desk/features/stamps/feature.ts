import { inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { KeepingStamps, canBeStamp } from './keeping';
import { keepStampIcon, stampArrange, stampIcon } from './stamp-icons';
import { StampTool } from './stamp-tool';
import { Stamps } from './stamps';
import { StampsApi } from './stamps-api';
import { TakingSheets } from './taking-sheets';

/** Stamps: drawings that are laid on pages again and again, kept on sheets. */
export const stamps: DeskFeature = {
  id: 'stamps',
  providers: [StampsApi, Stamps, StampTool, KeepingStamps, TakingSheets],
  icons: { stamp: stampIcon, keepStamp: keepStampIcon, stampArrange },
  tools: [
    {
      id: 'stamp',
      name: 'Stamp',
      icon: 'stamp',
      key: 'K',
      help: 'lay a stamp where you tap, again and again',
      cursor: 'copy',
      card: () => import('./stamp-drawer').then((m) => m.StampDrawer),
      // Stamps come from the drawer.
      opensCard: true,
      tool: () => inject(StampTool),
    },
  ],
  selectionActions: [
    {
      id: 'stamps.keep',
      icon: 'keepStamp',
      order: 45,
      action: () => {
        const [keeping, selection] = [inject(KeepingStamps), inject(AnnotationSelection)];
        return {
          name: () => 'Keep as a stamp',
          isThere: () => selection.annotations().some(canBeStamp),
          run: () => void keeping.keepSelection(),
        };
      },
    },
  ],
  snipActions: [
    {
      id: 'stamps.keep',
      icon: 'keepStamp',
      order: 30,
      action: () => {
        const [keeping, snackBar] = [inject(KeepingStamps), inject(MatSnackBar)];
        return {
          name: () => 'Keep as a stamp',
          run: (_page, _area, picture) => {
            if (picture) void keeping.keepSnip(picture);
            else
              snackBar.open('The snip has not been cut out yet. Snip it again.', 'Close', {
                duration: 8000,
              });
          },
        };
      },
    },
  ],
};
