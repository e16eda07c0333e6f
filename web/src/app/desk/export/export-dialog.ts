import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatRadioModule } from '@angular/material/radio';
import type { ExportMode } from '@stylet/core/pdf';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { documentFeature } from '../document/document.reducer';
import { syncFeature } from '../sync/sync.reducer';

/** What can be handed over, in the words of the dialog. */
const CHOICES: readonly { mode: ExportMode; name: string; words: string }[] = [
  {
    mode: 'editable',
    name: 'With annotations, editable',
    words: 'The original file, unchanged, with your ink and highlights added as PDF annotations.',
  },
  {
    mode: 'flattened',
    name: 'With annotations, fixed',
    words: 'Ink and highlights become part of the pages; nobody can move or remove them.',
  },
  {
    mode: 'none',
    name: 'Without annotations',
    words: 'The pages alone, with outline and links.',
  },
];

/** With pages of several files the export is a file of its own. */
const JOINED_CHOICES = CHOICES.map((choice) =>
  choice.mode === 'editable'
    ? { ...choice, words: 'All pages in one new file, your ink and highlights as PDF annotations.' }
    : choice,
);

@Component({
  selector: 'stylet-export-dialog',
  imports: [FormsModule, MatButtonModule, MatDialogModule, MatIconModule, MatRadioModule],
  templateUrl: './export-dialog.html',
  styleUrl: './export-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ExportDialog {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly document = inject<{ id: string; title: string }>(MAT_DIALOG_DATA);
  private readonly source = this.store.selectSignal(documentFeature.selectSource);
  private readonly pages = this.store.selectSignal(documentFeature.selectPages);
  protected readonly choices = computed(() =>
    this.pages().every(({ source }) => source === this.source()) ? CHOICES : JOINED_CHOICES,
  );
  protected readonly mode = signal<ExportMode>('editable');
  protected readonly waiting = this.store.selectSignal(syncFeature.selectWaiting);
  protected readonly address = computed(() => this.api.exportUrl(this.document.id, this.mode()));
}
