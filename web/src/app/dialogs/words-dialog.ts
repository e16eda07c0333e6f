import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialogModule,
  MatDialogRef,
  type MatDialog,
} from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { firstValueFrom } from 'rxjs';

/** What a person is asked for. */
export interface WordsWanted {
  readonly title: string;
  readonly hint: string;
  /** What the words are. */
  readonly label: string;
  readonly words: string;
  readonly longest: number;
  /** What keeping them does. */
  readonly action: string;
}

/** Asks for a few words. */
@Component({
  selector: 'stylet-words-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <form (submit)="keep($event, field.value)">
      <h2 mat-dialog-title>{{ wanted.title }}</h2>
      <mat-dialog-content>
        <p>{{ wanted.hint }}</p>
        <mat-form-field>
          <mat-label>{{ wanted.label }}</mat-label>
          <input
            matInput
            #field
            [maxLength]="wanted.longest"
            [value]="wanted.words"
            cdkFocusInitial
          />
        </mat-form-field>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit">{{ wanted.action }}</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    mat-form-field {
      width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WordsDialog {
  protected readonly wanted = inject<WordsWanted>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<WordsDialog, string>>(MatDialogRef);

  protected keep(event: Event, words: string): void {
    event.preventDefault();
    this.dialog.close(words);
  }
}

/** The words a person gives, or undefined when they think better of it. */
export const askForWords = (dialog: MatDialog, data: WordsWanted): Promise<string | undefined> =>
  firstValueFrom(
    dialog.open<WordsDialog, WordsWanted, string>(WordsDialog, { data }).afterClosed(),
  );
