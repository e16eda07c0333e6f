import { inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import type { DeskFeature } from '../../platform/feature/desk-feature';

/** Handing the document over as a PDF. */
export const exporting: DeskFeature = {
  id: 'export',
  commands: [
    {
      id: 'export',
      button: { name: 'Export', icon: 'export', order: 10, shows: 'words' },
      command: () => {
        const [store, dialog] = [inject(Store), inject(MatDialog)];
        const id = store.selectSignal(documentFeature.selectId);
        const title = store.selectSignal(documentFeature.selectTitle);
        const open = async (): Promise<void> => {
          const { ExportDialog } = await import('./export-dialog');
          dialog.open(ExportDialog, { data: { id: id(), title: title() } });
        };
        return { run: () => void open() };
      },
    },
  ],
};
