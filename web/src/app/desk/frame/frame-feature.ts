import type { DeskFeature } from '../platform/feature/desk-feature';
import { frameCommands } from './keys/frame-commands';
import { selectionCommands } from './selection/selection-commands';

/** What the frame itself brings, registered like all else. */
export const frame: DeskFeature = {
  id: 'frame',
  help: [
    {
      keys: 'Hold',
      does: 'with a finger or the lasso: the menu of the page, to paste there and more',
    },
  ],
  commands: [...selectionCommands, ...frameCommands],
};
