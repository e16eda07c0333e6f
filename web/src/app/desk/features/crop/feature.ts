import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Cropping } from './cropping';

/** Crops pictures on their page. */
export const crop: DeskFeature = {
  id: 'crop',
  providers: [Cropping],
  onPages: [
    {
      id: 'crop',
      order: 70,
      hidesSelection: true,
      load: () => import('./crop-overlay').then((m) => m.CropOverlay),
      shows: () => {
        const cropping = inject(Cropping);
        return ({ id }) => cropping.picture()?.pageId === id;
      },
    },
  ],
  instead: () => {
    const cropping = inject(Cropping);
    return (pageId) => (cropping.picture()?.pageId === pageId ? cropping.preview() : undefined);
  },
  commands: [
    {
      id: 'crop.done',
      keys: ['enter'],
      command: () => {
        const cropping = inject(Cropping);
        return { can: () => cropping.picture() !== undefined, run: () => cropping.done() };
      },
    },
    {
      id: 'crop.cancel',
      keys: ['escape'],
      rank: 50,
      command: () => {
        const cropping = inject(Cropping);
        return { can: () => cropping.picture() !== undefined, run: () => cropping.cancel() };
      },
    },
  ],
  selectionActions: [
    {
      id: 'crop',
      icon: 'crop',
      order: 30,
      action: () => {
        const [cropping, { picture }] = [inject(Cropping), inject(AnnotationSelection)];
        return {
          name: () => 'Crop',
          isThere: () => picture() !== undefined,
          isDisabled: () => picture()?.locked === true,
          run: () => cropping.begin(picture()!),
        };
      },
    },
  ],
};
