import { inject } from '@angular/core';
import { Store } from '@ngrx/store';
import type { CommandEntry } from '../../platform/feature/commands';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { Clipboard } from '../../platform/selection/clipboard';
import { Marking } from '../../platform/selection/marking';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { TextSelection } from '../../platform/selection/text-selection';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';

/** Points that an arrow moves what is selected by, and with Shift. */
const [STEP, STRIDE] = [1, 10];

const ways = { left: [-1, 0], right: [1, 0], up: [0, -1], down: [0, 1] } as const;

const nudges: readonly CommandEntry[] = Object.entries(ways).flatMap(([way, [x, y]]) =>
  [STEP, STRIDE].map((by): CommandEntry => ({
    id: `selection.${way}.${by}`,
    keys: [`${by === STRIDE ? 'shift+' : ''}arrow${way}`],
    rank: 20,
    command: () => {
      const [chosen, actions] = [inject(AnnotationSelection), inject(SelectionActions)];
      return {
        can: () => chosen.pageId() !== undefined,
        run: () => actions.transform([1, 0, 0, 1, by * x, by * y]),
      };
    },
  })),
);

/** Keys for what is selected: annotations, and words. */
export const selectionCommands: readonly CommandEntry[] = [
  ...nudges,
  {
    id: 'selection.remove',
    keys: ['delete', 'backspace'],
    rank: 20,
    help: [
      { keys: 'Arrows', does: 'move what is selected by a point; Shift ten times as far' },
      { keys: 'Del, Backspace', does: 'remove what is selected, or the marks on selected words' },
    ],
    command: () => {
      const [chosen, actions] = [inject(AnnotationSelection), inject(SelectionActions)];
      return { can: () => chosen.pageId() !== undefined, run: () => actions.remove() };
    },
  },
  {
    id: 'words.unmark',
    keys: ['delete', 'backspace'],
    rank: 10,
    command: () => {
      const [words, marking] = [inject(TextSelection), inject(Marking)];
      return { can: () => words.selected() !== undefined, run: () => marking.unmark() };
    },
  },
  {
    id: 'words.clear',
    keys: ['escape'],
    rank: 20,
    command: () => {
      const words = inject(TextSelection);
      return { can: () => words.selected() !== undefined, run: () => words.clear() };
    },
  },
  {
    id: 'selection.clear',
    keys: ['escape'],
    rank: 10,
    command: () => {
      const chosen = inject(AnnotationSelection);
      return { can: () => chosen.pageId() !== undefined, run: () => chosen.clear() };
    },
  },
  {
    id: 'pen',
    keys: ['escape'],
    help: [{ keys: 'Esc', does: 'back to the pen' }],
    command: () => {
      const store = inject(Store);
      return { run: () => store.dispatch(kitActions.toolTaken({ tool: 'pen' })) };
    },
  },
  {
    id: 'selection.duplicate',
    keys: ['ctrl+d'],
    help: [{ keys: 'Ctrl D', does: 'duplicate what is selected' }],
    command: () => {
      const [chosen, actions] = [inject(AnnotationSelection), inject(SelectionActions)];
      return { can: () => chosen.pageId() !== undefined, run: () => actions.duplicate() };
    },
  },
  {
    id: 'selection.all',
    keys: ['ctrl+a'],
    help: [{ keys: 'Ctrl A', does: 'select all on the page' }],
    command: () => {
      const [store, pages] = [inject(Store), inject(PagesOnScreen)];
      const chosen = inject(AnnotationSelection);
      const mode = store.selectSignal(kitFeature.selectMode);
      return {
        can: () => mode() === 'write',
        run: () => {
          const page = pages.current();
          if (!page) return;
          store.dispatch(kitActions.toolTaken({ tool: 'lasso' }));
          chosen.takePage(page.id);
        },
      };
    },
  },
  {
    id: 'words.copy',
    keys: ['ctrl+c'],
    help: [{ keys: 'Ctrl X / C / V', does: 'cut, copy, paste at the pointer' }],
    command: () => {
      const words = inject(TextSelection);
      return { can: () => words.selected() !== undefined, run: () => void words.copy() };
    },
  },
  {
    id: 'paste.inPlace',
    // Without Shift the browser says what is on the clipboard.
    keys: ['ctrl+shift+v'],
    help: [{ keys: 'Ctrl Shift V', does: 'paste in the same place' }],
    command: () => {
      const clipboard = inject(Clipboard);
      return { run: () => clipboard.pasteInPlace() };
    },
  },
];
