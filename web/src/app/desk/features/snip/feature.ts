import { inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import type { Tool } from '../../platform/feature/tools';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { PageDrawing } from './page-drawing';
import { SnipGesture } from './snip-gesture';
import { SnipMeanings } from './snip-meanings';
import { Snipping } from './snipping';

function snipTool(): Tool {
  const snipping = inject(Snipping);
  const settings = inject(Store).selectSignal(kitFeature.selectSnip);
  return {
    begin: ({ page }) =>
      new SnipGesture(
        settings().drawn,
        (way) => page.sketch({ kind: 'way', way }),
        (outline) => snipping.draw(page, outline),
      ),
  };
}

/** Cuts pieces out of pages, as pixels and as they are drawn. */
export const snip: DeskFeature = {
  id: 'snip',
  providers: [PageDrawing, SnipMeanings, Snipping],
  tools: [
    {
      id: 'snip',
      name: 'Snip',
      icon: 'snip',
      key: 'S',
      help: 'snip a piece of a page',
      card: () => import('./snip-card').then((m) => m.SnipCard),
      tool: snipTool,
    },
  ],
  pressed: () => {
    const snipping = inject(Snipping);
    return () => snipping.current.set(undefined);
  },
  meanings: () => {
    const meanings = inject(SnipMeanings);
    return (stroke) => meanings.of(stroke);
  },
  onPages: [
    {
      id: 'snip',
      order: 10,
      standsOut: true,
      load: () => import('./snip-overlay').then((m) => m.SnipOverlay),
      shows: () => {
        const snipping = inject(Snipping);
        return ({ id }) => snipping.current()?.page.id === id;
      },
    },
  ],
  commands: [
    {
      id: 'snip.putAway',
      keys: ['escape'],
      rank: 30,
      command: () => {
        const { current } = inject(Snipping);
        return { can: () => current() !== undefined, run: () => current.set(undefined) };
      },
    },
  ],
};
