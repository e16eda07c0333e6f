import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatRadioModule } from '@angular/material/radio';
import type { ExportReport } from '@stylet/core/api';
import type { ExportMode } from '@stylet/core/pdf';
import { Store } from '@ngrx/store';
import { catchError, concat, of, switchMap } from 'rxjs';
import { Api } from '../../../api/api';
import { troubleOf, type Trouble } from '../../../api/problem';
import { counted } from '../../../library/counted';
import { documentFeature } from '../../platform/document/document.reducer';
import { syncFeature } from '../../platform/sync/sync.reducer';

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
  imports: [
    FormsModule,
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatIconModule,
    MatRadioModule,
  ],
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
  protected readonly keepsNotes = signal(true);
  protected readonly isConfirmed = signal(false);
  private readonly how = computed(() => ({ mode: this.mode(), keepsNotes: this.keepsNotes() }));
  protected readonly waiting = this.store.selectSignal(syncFeature.selectWaiting);
  protected readonly address = computed(() =>
    this.api.exportUrl(this.document.id, this.how(), this.isConfirmed()),
  );
  /** What it leaves out or breaks; nothing while that is looked for, and where it cannot be told. */
  protected readonly report = toSignal(
    toObservable(this.how).pipe(
      switchMap((how) =>
        concat(
          of(undefined),
          this.api.exportReport(this.document.id, how).pipe(
            catchError((error: unknown) => {
              this.trouble.set(troubleOf(error));
              return of(undefined);
            }),
          ),
        ),
      ),
    ),
  );
  protected readonly trouble = signal<Trouble | undefined>(undefined);
  protected readonly losses = computed(() => lossesIn(this.report()));
  protected readonly isBarred = computed(
    () => (this.report()?.isBreach ?? false) && !this.isConfirmed(),
  );
}

/** What a report says, in words. */
function lossesIn(report: ExportReport | undefined): string[] {
  if (!report) return [];
  const { hidden, notes, carried, signatures, isLost, isUnprotected } = report;
  const signed = isLost
    ? 'does not hold in a file with pages of several: whoever checks will not find it there.'
    : 'whoever checks will be told that the file has been changed since.';
  return [
    ...(hidden > 0 ? [`${counted(hidden, 'hidden annotation')} left out.`] : []),
    ...(notes > 0 ? [`The words of ${counted(notes, 'note')} left out.`] : []),
    ...(carried > 0 ? [`${counted(carried, 'attached file')} left out.`] : []),
    ...(signatures > 0 ? [`${counted(signatures, 'signature')}: ${signed}`] : []),
    ...(isUnprotected ? ['The original asks for a password; this PDF will not.'] : []),
  ];
}
