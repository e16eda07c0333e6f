import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef, type MatDialog } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { saveJson } from '../../../storage/save-file';
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

  protected async forget(): Promise<void> {
    await this.sender.forget(this.aside().map(({ operation }) => operation));
    this.dialog.close();
  }

  private readonly ids = (): string[] => this.rows().map(({ id }) => id);
}

export const showAside = (dialog: MatDialog): void =>
  void dialog.open(AsideDialog, { width: '560px' });
