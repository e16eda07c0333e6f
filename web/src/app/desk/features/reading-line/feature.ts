import { inject } from '@angular/core';
import type { CommandEntry } from '../../platform/feature/commands';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { ReadingLine } from './reading-line';

const steps: readonly CommandEntry[] = ([1, -1] as const).map((by) => ({
  id: `reading-line.${by > 0 ? 'next' : 'before'}`,
  keys: [by > 0 ? 'arrowdown' : 'arrowup'],
  command: () => {
    const line = inject(ReadingLine);
    return { can: () => line.isOn(), run: () => void line.step(by) };
  },
}));

/** Shows one line of text at a time. */
export const readingLine: DeskFeature = {
  id: 'reading-line',
  providers: [ReadingLine],
  onPages: [
    {
      id: 'reading-line',
      order: 50,
      load: () => import('./reading-line-overlay').then((m) => m.ReadingLineOverlay),
      shows: () => {
        const { at } = inject(ReadingLine);
        return ({ id }) => at()?.pageId === id;
      },
    },
  ],
  tapped: () => {
    const line = inject(ReadingLine);
    return (page, at) => {
      if (line.isOn()) void line.take(page.id, at);
    };
  },
  commands: [
    {
      id: 'reading-line',
      keys: ['shift+t'],
      help: [
        {
          keys: 'Shift+T',
          does: 'reading line, and away with it; Arrows go on and back by a line',
        },
      ],
      menu: { in: 'view', name: 'Reading line', order: 20 },
      command: () => {
        const line = inject(ReadingLine);
        return { isOn: () => line.isOn(), run: () => void line.toggle() };
      },
    },
    ...steps,
  ],
};
