import { inject } from '@angular/core';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { TextSelection } from '../../platform/selection/text-selection';
import { LookingUp } from './looking-up';

/** More words than this stand in no dictionary together. */
const MOST_WORDS = 4;

/** What dictionaries say of words on pages. */
export const dictionary: DeskFeature = {
  id: 'dictionary',
  providers: [LookingUp],
  overlays: [
    {
      id: 'dictionary',
      in: 'window',
      load: () => import('./lookup-card').then((m) => m.LookupCard),
      shows: () => {
        const { current } = inject(LookingUp);
        return () => current() !== undefined;
      },
    },
  ],
  wordActions: [
    {
      id: 'dictionary',
      icon: 'dictionary',
      order: 10,
      action: () => {
        const [looking, words] = [inject(LookingUp), inject(TextSelection)];
        return {
          name: () => 'Look up',
          isForMarks: true,
          isThere: () => words.contents().trim().split(/\s+/).length <= MOST_WORDS,
          run: (end) => void looking.begin(words.contents(), end),
        };
      },
    },
  ],
};
