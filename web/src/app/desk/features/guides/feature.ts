import { inject } from '@angular/core';
import type { GuideKind } from '@stylet/core/guides';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import type { Aid } from '../../platform/feature/tools';
import { Guides } from './guides';

const aidFor = (kind: GuideKind) => (): Aid => {
  const guides = inject(Guides);
  return { isOn: () => guides.isLaid(kind), toggle: () => guides.toggle(kind) };
};

/** A ruler and a set square that lie on the pages, and guide the pen. */
export const guides: DeskFeature = {
  id: 'guides',
  providers: [Guides],
  aids: [
    { id: 'ruler', name: 'Ruler', icon: 'ruler', key: 'G', aid: aidFor('ruler') },
    { id: 'setSquare', name: 'Set square', icon: 'setSquare', key: 'H', aid: aidFor('setSquare') },
  ],
  onStrip: [
    {
      id: 'guides',
      load: () => import('./guide-overlay').then((m) => m.GuideOverlay),
      shows: () => {
        const laid = inject(Guides);
        return ({ id }) => laid.guides().some(({ pageId }) => pageId === id);
      },
    },
  ],
  edges: () => {
    const laid = inject(Guides);
    return {
      edgeFor: (page, at) => laid.edgeFor(page, at),
      drawn: (length) => laid.drawn.set(length),
    };
  },
  help: [
    { keys: 'Arrows', does: 'move the guide in focus; Shift ten times as far' },
    { keys: ', / .', does: 'turn the guide in focus by a degree' },
  ],
};
