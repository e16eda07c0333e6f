import { Injectable, computed, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';

/** The files that the open document carries. */
@Injectable({ providedIn: 'root' })
export class FilesInside {
  private readonly dialog = inject(MatDialog);
  private readonly store = inject(Store);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly notices = this.store.selectSignal(documentFeature.selectNotices);
  readonly areThere = computed(() =>
    this.notices().some(({ kind }) => kind === 'portfolio' || kind === 'files-inside'),
  );

  async show(): Promise<void> {
    const { FilesDialog } = await import('./files-dialog');
    this.dialog.open(FilesDialog, { data: this.documentId(), width: '520px' });
  }
}
