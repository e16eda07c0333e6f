import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { GapGesture } from './gap-gesture';
import { Gaps } from './gaps';

/** Makes room on a page: what is below is pushed down, or up. */
export const gap: DeskFeature = {
  id: 'gap',
  providers: [Gaps],
  tools: [
    {
      id: 'gap',
      name: 'Gap',
      icon: 'gap',
      key: 'P',
      help: 'gap: push what is below further down, or up',
      cursor: 'row-resize',
      tool: () => {
        const gaps = inject(Gaps);
        return {
          begin: ({ page }) =>
            new GapGesture(
              gaps.on(page.page, page.annotations, (line) =>
                page.sketch(line && { kind: 'gap', ...line }),
              ),
            ),
        };
      },
    },
  ],
};
