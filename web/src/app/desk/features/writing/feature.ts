import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { WritingTool } from './writing-tool';

/** Pens, pencils and highlighters: what the slots of the kit write with. */
export const writing: DeskFeature = {
  id: 'writing',
  providers: [WritingTool],
  tools: [
    {
      id: 'pen',
      name: 'Pen',
      icon: 'ink',
      isInSlots: true,
      card: () => import('./slot-card').then((m) => m.SlotCard),
      tool: () => inject(WritingTool),
    },
  ],
};
