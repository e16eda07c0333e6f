import { inject } from '@angular/core';
import { paintingOrder } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import type { Tool } from '../../platform/feature/tools';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { LassoGesture } from './lasso-gesture';

function lassoTool(): Tool {
  const selection = inject(AnnotationSelection);
  const settings = inject(Store).selectSignal(kitFeature.selectLasso);
  return {
    begin: ({ at, adds, page }) =>
      new LassoGesture(settings(), {
        annotations: paintingOrder(page.annotations),
        pointsPerPixel: page.pointsPerPixel,
        select: (ids) => selection.take(page.page.id, ids, adds),
        show: (way) => page.sketch({ kind: 'way', way }),
        held: () => page.openMenu(at),
      }),
  };
}

/** Selects what one draws round. */
export const lasso: DeskFeature = {
  id: 'lasso',
  tools: [
    {
      id: 'lasso',
      name: 'Lasso',
      icon: 'lasso',
      key: 'L',
      help: 'lasso; Shift adds to what is selected',
      cursor: 'default',
      card: () => import('./lasso-card').then((m) => m.LassoCard),
      tool: lassoTool,
    },
  ],
};
