import { inject } from '@angular/core';
import { paintingOrder } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import type { Tool } from '../../platform/feature/tools';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { sizeOnPage } from '../../platform/kit/on-screen';
import { EraseGesture } from './erase-gesture';

function eraserTool(): Tool {
  const store = inject(Store);
  const settings = store.selectSignal(kitFeature.selectEraser);
  const sizeOn = (pointsPerPixel: number): number =>
    sizeOnPage(settings().size, settings().onScreen, pointsPerPixel);
  return {
    begin: ({ page }) =>
      new EraseGesture(
        paintingOrder(page.annotations),
        settings(),
        sizeOn(page.pointsPerPixel) / 2,
        (remains) => page.show(remains),
      ),
    ended: () => store.dispatch(kitActions.eraserUsed()),
    ring: (pointsPerPixel) => sizeOn(pointsPerPixel) / pointsPerPixel,
  };
}

export const eraser: DeskFeature = {
  id: 'eraser',
  tools: [
    {
      id: 'eraser',
      name: 'Eraser',
      icon: 'eraser',
      key: 'E',
      cursor: 'none',
      card: () => import('./eraser-card').then((m) => m.EraserCard),
      tool: eraserTool,
    },
  ],
};
