import { inject } from '@angular/core';
import type { ActionOn } from '../../platform/feature/actions';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import { LandmarksFrom } from './landmarks-from';
import { OutlineProposal } from './outline-proposal';

type Work = Exclude<keyof LandmarksFrom, 'keywordForPage'>;

const making = (name: string, work: Work) => (): ActionOn & { run(): void } => {
  const from = inject(LandmarksFrom);
  return { name: () => name, run: () => void from[work]() };
};

/** The outline, bookmarks and keywords, made of what is on pages. */
export const landmarks: DeskFeature = {
  id: 'landmarks',
  providers: [LandmarksFrom, OutlineProposal],
  commands: [
    {
      id: 'bookmark',
      keys: ['b'],
      help: [
        { keys: 'B', does: 'bookmark this page, or take the bookmark away' },
        { keys: 'F2, Del, Alt arrows', does: 'in the Index: rename, remove, move an entry' },
      ],
      command: () => {
        const actions = inject(LandmarkActions);
        return { run: () => void actions.toggleBookmark() };
      },
    },
    {
      id: 'keyword.page',
      menu: { in: 'index', name: 'Keyword for this page …', order: 10 },
      command: () => {
        const from = inject(LandmarksFrom);
        return { run: () => void from.keywordForPage() };
      },
    },
    {
      id: 'outline.propose',
      menu: { in: 'index', name: 'Outline from the headings …', order: 20, isForEmpty: true },
      command: () => {
        const proposal = inject(OutlineProposal);
        return { run: () => void proposal.open() };
      },
    },
  ],
  pageMenu: [
    {
      id: 'bookmark',
      name: 'Bookmark this page, or not',
      icon: 'bookmark',
      order: 50,
      run: () => {
        const actions = inject(LandmarkActions);
        return () => void actions.toggleBookmark();
      },
    },
  ],
  selectionActions: [
    { id: 'outline', order: 80, action: making('Add to the outline …', 'entryFromInk') },
    { id: 'keyword', order: 90, action: making('Make a keyword …', 'keywordFromInk') },
  ],
  wordActions: [
    {
      id: 'outline',
      icon: 'addEntry',
      order: 30,
      action: making('Add to the outline', 'entryFromText'),
    },
    {
      id: 'keyword',
      icon: 'keyword',
      order: 50,
      action: making('Make a keyword', 'keywordFromText'),
    },
  ],
};
