import { inject } from '@angular/core';
import railArrange from '@material-symbols/svg-400/outlined/tune.svg';
import railHide from '@material-symbols/svg-400/outlined/left_panel_close.svg';
import railShow from '@material-symbols/svg-400/outlined/left_panel_open.svg';
import railTray from '@material-symbols/svg-400/outlined/widgets.svg';
import { Store } from '@ngrx/store';
import type { DeskFeature } from '../platform/feature/desk-feature';
import type { OnPageEntry } from '../platform/feature/parts';
import { kitFeature } from '../platform/kit/kit.reducer';
import { AnnotationSelection } from '../platform/selection/annotation-selection';
import { TextSelection } from '../platform/selection/text-selection';
import { frameCommands } from './keys/frame-commands';
import { selectionCommands } from './selection/selection-commands';

const onPages: readonly OnPageEntry[] = [
  {
    id: 'words',
    order: 60,
    load: () => import('./selection/selected-words').then((m) => m.SelectedWords),
    shows: () => {
      const [words, mode] = [
        inject(TextSelection),
        inject(Store).selectSignal(kitFeature.selectMode),
      ];
      return ({ id }) => mode() === 'read' && words.parts().some(({ page }) => page.id === id);
    },
  },
  {
    id: 'selection',
    order: 80,
    isSelection: true,
    standsOut: true,
    load: () => import('./selection/selected-annotations').then((m) => m.SelectedAnnotations),
    shows: () => {
      const chosen = inject(AnnotationSelection);
      const mode = inject(Store).selectSignal(kitFeature.selectMode);
      return ({ id }) => mode() === 'write' && chosen.pageId() === id;
    },
  },
];

/** What the frame itself brings, registered like all else. */
export const frame: DeskFeature = {
  id: 'frame',
  help: [
    {
      keys: 'Hold',
      does: 'with a finger or the lasso: the menu of the page, to paste there and more',
    },
  ],
  icons: { railArrange, railHide, railShow, railTray },
  onPages,
  commands: [...selectionCommands, ...frameCommands],
};
