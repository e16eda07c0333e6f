import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { CoverageChart } from './coverage-chart';

/** How much of the document has been read. */
export const coverage: DeskFeature = {
  id: 'coverage',
  providers: [CoverageChart],
  commands: [
    {
      id: 'coverage',
      menu: { in: 'index', name: 'What I have read …', order: 30 },
      command: () => {
        const chart = inject(CoverageChart);
        return { run: () => void chart.open() };
      },
    },
  ],
};
