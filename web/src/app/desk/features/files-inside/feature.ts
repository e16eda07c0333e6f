import { inject } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Actions, ofType } from '@ngrx/effects';
import { documentActions } from '../../platform/document/document.reducer';
import type { DeskFeature } from '../../platform/feature/desk-feature';
import { FilesInside } from './files-inside';

/** The page of a portfolio only says that there is more. */
function tellOfPortfolios(): void {
  const [files, snackBar] = [inject(FilesInside), inject(MatSnackBar)];
  inject(Actions)
    .pipe(ofType(documentActions.loaded), takeUntilDestroyed())
    .subscribe(({ document }) => {
      if (!document.notices.some(({ kind }) => kind === 'portfolio')) return;
      snackBar
        .open('This is a portfolio: there are files inside.', 'Show them', { duration: 12_000 })
        .onAction()
        .subscribe(() => void files.show());
    });
}

/** Files that a document carries inside. */
export const filesInside: DeskFeature = {
  id: 'files-inside',
  starts: tellOfPortfolios,
  commands: [
    {
      id: 'files-inside',
      menu: { in: 'more', name: 'Files inside', icon: 'attachment', order: 400 },
      command: () => {
        const files = inject(FilesInside);
        return { isThere: () => files.areThere(), run: () => void files.show() };
      },
    },
  ],
};
