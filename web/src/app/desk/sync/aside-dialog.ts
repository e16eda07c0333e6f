import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef, type MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { saveJson } from '../../storage/save-file';
import { documentActions, documentFeature } from '../document/document.reducer';
import { wordsFor } from './effect-words';
import { Sender } from './sender';
import { syncFeature } from './sync.reducer';

/** Changes the server has refused: what they were, why, and what can be done with them. */
@Component({
  selector: 'stylet-aside-dialog',
  imports: [DatePipe, MatButtonModule, MatDialogModule],
  templateUrl: './aside-dialog.html',
  styleUrl: './aside-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AsideDialog {
  private readonly sender = inject(Sender);
  private readonly dialog = inject<MatDialogRef<AsideDialog>>(MatDialogRef);
  private readonly store = inject(Store);
  private readonly aside = this.store.selectSignal(syncFeature.selectAside);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  protected readonly rows = computed(() =>
    this.aside().map(({ operation, trouble, at }) => ({
      id: operation.id,
      words: wordsFor(operation.effect),
      trouble,
      at,
    })),
  );

  protected async sendAgain(): Promise<void> {
    this.dialog.close();
    await this.sender.sendAgain(this.ids());
  }

  /** As the API takes them, so that nothing that was done is lost. */
  protected save(): void {
    saveJson('Changes that were not saved', {
      operations: this.aside().map(({ operation }) => operation),
    });
  }

  /** What shows of them goes with them. */
  protected async forget(): Promise<void> {
    const id = this.documentId();
    const isShown = this.aside().some(({ operation }) => operation.documentId === id);
    await this.sender.forget(this.ids());
    if (id !== undefined && isShown) this.store.dispatch(documentActions.opened({ id }));
    this.dialog.close();
  }

  private readonly ids = (): string[] => this.rows().map(({ id }) => id);
}

export const showAside = (dialog: MatDialog): void =>
  void dialog.open(AsideDialog, { width: '560px' });
