import { inject } from '@angular/core';
import calendar from '@material-symbols/svg-400/outlined/calendar_today.svg';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { DatingTool } from './dating-tool';

/** Writes the date on pages. */
export const datingFeature: DeskFeature = {
  id: 'dating',
  providers: [DatingTool],
  icons: { dating: calendar },
  tools: [
    {
      id: 'dating',
      name: 'Date',
      icon: 'dating',
      key: 'J',
      help: 'write the date where you tap',
      cursor: 'copy',
      card: () => import('./dating-card').then((m) => m.DatingCard),
      tool: () => inject(DatingTool),
    },
  ],
};
