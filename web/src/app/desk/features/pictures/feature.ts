import { inject } from '@angular/core';
import { transform } from '@stylet/core/geometry';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { screenToPage } from '../../platform/paper/page-geometry';
import { PICTURE_FILES, chooseFiles } from '../../platform/pictures/choose-files';
import { PuttingIn } from '../../platform/pictures/putting-in';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { PictureOrigin } from './picture-origin';
import { PictureTool } from './picture-tool';

/** Puts pictures on pages, and leads back to where they are from. */
export const pictures: DeskFeature = {
  id: 'pictures',
  providers: [PictureOrigin, PictureTool],
  tools: [
    {
      id: 'picture',
      name: 'Picture',
      icon: 'picture',
      key: 'I',
      help: 'put a picture where you tap',
      cursor: 'copy',
      card: () => import('./picture-card').then((m) => m.PictureCard),
      // Pictures come from the card.
      opensCard: true,
      tool: () => inject(PictureTool),
    },
  ],
  pageMenu: [
    {
      id: 'pictures.put',
      name: 'Picture here …',
      icon: 'pictures',
      order: 30,
      run: () => {
        const [puttingIn, onScreen] = [inject(PuttingIn), inject(PagesOnScreen)];
        return async (page, at) => {
          const rect = onScreen.find(page.id)?.rect;
          if (!rect) return;
          const place = transform(screenToPage(page, rect), at);
          await puttingIn.putFiles(await chooseFiles(PICTURE_FILES), page, place);
        };
      },
    },
  ],
  selectionActions: [
    {
      id: 'pictures.origin',
      icon: 'origin',
      order: 40,
      action: () => {
        const [origin, selection] = [inject(PictureOrigin), inject(AnnotationSelection)];
        const source = () => selection.picture()?.source;
        return {
          name: () => 'Where it is from',
          tip: () => `Where it is from: ${origin.nameOf(source()!)}`,
          isThere: () => source() !== undefined,
          run: () => void origin.show(source()!),
        };
      },
    },
  ],
};
