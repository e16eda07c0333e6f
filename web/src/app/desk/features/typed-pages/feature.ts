import { effect, inject } from '@angular/core';
import textOfPages from '@material-symbols/svg-400/outlined/edit_note.svg';
import table from '@material-symbols/svg-400/outlined/table.svg';
import type { Page } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { BrowserDb } from '../../../storage/browser-db';
import { documentFeature } from '../../platform/document/document.reducer';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { TextOpen } from './text-open';

const onPagesOfText = (): ((page: Page) => boolean) => {
  const open = inject(TextOpen);
  return ({ id }) => open.indexOf(id) !== undefined;
};

/** Edits the text that flows over a document's pages. */
export const typedPages: DeskFeature = {
  id: 'typedPages',
  providers: [TextOpen],
  icons: { table, textOfPages },
  // Whoever has just begun a text wants to type.
  starts: () => {
    const { editsText } = (history.state ?? {}) as { editsText?: boolean };
    const open = inject(TextOpen);
    if (editsText) open.isOpen.set(true);
    // What was typed while the server was away is not on its pages yet.
    const [db, id] = [inject(BrowserDb), inject(Store).selectSignal(documentFeature.selectId)];
    effect(() => {
      const documentId = id();
      if (!documentId) return;
      db.open().then(
        async (known) => {
          if (await known.get('texts', documentId)) open.isOpen.set(true);
        },
        (error: unknown) => console.error(error),
      );
    });
  },
  onPages: [
    {
      id: 'typedPages.sheet',
      order: 0,
      isBeneath: true,
      load: () => import('./typed-sheet').then((m) => m.TypedSheet),
      shows: onPagesOfText,
    },
    {
      id: 'typedPages.words',
      order: 80,
      hidesSelection: true,
      load: () => import('./typed-words').then((m) => m.TypedWords),
      shows: onPagesOfText,
    },
  ],
  overlays: [
    {
      id: 'typedPages.bar',
      in: 'pages',
      load: () => import('./typed-bar').then((m) => m.TypedBar),
      shows: () => inject(TextOpen).isOpen,
    },
  ],
  commands: [
    {
      id: 'typedPages',
      button: { name: 'Edit text', icon: 'textOfPages', order: 5, shows: 'words' },
      keys: ['shift+e'],
      help: [{ keys: 'Shift+E', does: 'edit the text of typed pages' }],
      command: () => {
        const open = inject(TextOpen);
        const isTyped = inject(Store).selectSignal(documentFeature.selectIsTyped);
        return {
          run: () => open.isOpen.update((is) => !is),
          can: () => isTyped(),
          isThere: () => isTyped(),
          isOn: () => open.isOpen(),
        };
      },
    },
  ],
};
