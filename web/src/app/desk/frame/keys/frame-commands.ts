import { inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { PaneFrame } from '../../../panes/pane-frame';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing } from '../../platform/document/editing';
import type { CommandEntry } from '../../platform/feature/commands';
import { Registered } from '../../platform/feature/registered';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { DarkPages } from '../../platform/paper/dark-pages';
import { ViewState } from '../../platform/view/view-state';
import { helpRows } from './help-rows';

const LARGER = 1.25;

const slots: readonly CommandEntry[] = Array.from({ length: 9 }, (_, i) => ({
  id: `slot.${i + 1}`,
  keys: [String(i + 1)],
  command: () => {
    const store = inject(Store);
    const all = store.selectSignal(kitFeature.selectSlots);
    return {
      can: () => i < all().length,
      run: () => store.dispatch(kitActions.slotTaken({ id: all()[i].id })),
    };
  },
}));

const history: readonly CommandEntry[] = [
  {
    id: 'undo',
    keys: ['ctrl+z'],
    isForBoardToo: true,
    help: [{ keys: 'Ctrl Z', does: 'undo' }],
    command: () => {
      const editing = inject(Editing);
      return { run: () => editing.undo() };
    },
  },
  {
    id: 'redo',
    keys: ['ctrl+shift+z', 'ctrl+y'],
    isForBoardToo: true,
    help: [{ keys: 'Ctrl Shift Z', does: 'redo' }],
    command: () => {
      const editing = inject(Editing);
      return { run: () => editing.redo() };
    },
  },
];

const views: readonly CommandEntry[] = [
  {
    id: 'mode',
    keys: ['r'],
    help: [
      { keys: 'R', does: 'read, and write again' },
      { keys: 'Space held', does: 'drag the pages' },
    ],
    command: () => {
      const store = inject(Store);
      const mode = store.selectSignal(kitFeature.selectMode);
      const other = (): 'read' | 'write' => (mode() === 'read' ? 'write' : 'read');
      return { run: () => store.dispatch(kitActions.modeChosen({ mode: other() })) };
    },
  },
  {
    id: 'dark',
    keys: ['d'],
    help: [{ keys: 'D', does: 'dark pages, and light again' }],
    command: () => {
      const dark = inject(DarkPages);
      return { run: () => dark.toggle() };
    },
  },
  {
    id: 'back',
    keys: ['alt+arrowleft'],
    help: [{ keys: 'Alt ←', does: 'back to where you were' }],
    command: () => {
      const view = inject(ViewState);
      return { run: () => view.back() };
    },
  },
  {
    id: 'forward',
    keys: ['alt+arrowright'],
    help: [{ keys: 'Alt →', does: 'forward again' }],
    command: () => {
      const view = inject(ViewState);
      return { run: () => view.forward() };
    },
  },
  {
    id: 'zoom.in',
    keys: ['ctrl++', 'ctrl+='],
    help: [{ keys: 'Ctrl + / Ctrl −', does: 'zoom in, zoom out' }],
    command: () => {
      const view = inject(ViewState);
      return { run: () => view.zoomTo(view.zoom() * LARGER) };
    },
  },
  {
    id: 'zoom.out',
    keys: ['ctrl+-'],
    command: () => {
      const view = inject(ViewState);
      return { run: () => view.zoomTo(view.zoom() / LARGER) };
    },
  },
  {
    id: 'fit.width',
    keys: ['ctrl+0'],
    help: [{ keys: 'Ctrl 0', does: 'fit the width' }],
    command: () => {
      const view = inject(ViewState);
      return { run: () => view.fit('width') };
    },
  },
];

const panes: readonly CommandEntry[] = (['beside', 'above'] as const).map((where, i) => ({
  id: `panes.${where}`,
  menu: {
    in: 'more' as const,
    name: where === 'beside' ? 'Once more, beside' : 'Once more, below',
    icon: where === 'beside' ? 'paneBeside' : 'paneBelow',
    order: i,
  },
  command: () => {
    const frame = inject(PaneFrame);
    const id = inject(Store).selectSignal(documentFeature.selectId);
    return { run: () => frame.openBeside(id()!, id()!, where) };
  },
}));

const sheets: readonly CommandEntry[] = [
  {
    id: 'name',
    menu: { in: 'more', name: 'Your name', icon: 'person', order: 800 },
    command: () => {
      const [author, dialog] = [inject(Author), inject(MatDialog)];
      return { run: () => void askForName(author, dialog) };
    },
  },
  {
    id: 'help',
    keys: ['?', 'shift+?'],
    isForBoardToo: true,
    help: [{ keys: '?', does: 'this sheet' }],
    menu: { in: 'more', name: 'Keys', icon: 'help', order: 900 },
    command: () => {
      const [registered, dialog] = [inject(Registered), inject(MatDialog)];
      const open = async (): Promise<void> => {
        const { HelpDialog } = await import('./help-dialog');
        dialog.open(HelpDialog, { data: helpRows(registered) });
      };
      return { run: () => void open() };
    },
  },
];

async function askForName(author: Author, dialog: MatDialog): Promise<void> {
  const { askForWords } = await import('../../../dialogs/words-dialog');
  const name = await askForWords(dialog, {
    title: 'Your name',
    hint: 'It stands on what you write from now on, and others see it in the exported PDF.',
    label: 'Name',
    words: author.name(),
    longest: 200,
    action: 'Keep',
  });
  if (name !== undefined) author.rename(name);
}

/** What the desk does without any feature. */
export const frameCommands: readonly CommandEntry[] = [
  ...slots,
  ...history,
  ...views,
  ...panes,
  ...sheets,
];
