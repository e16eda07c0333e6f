import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, type MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';

/** A question before something that cannot be taken back. */
export interface Question {
  readonly title: string;
  readonly words: string;
  readonly action: string;
}

@Component({
  selector: 'stylet-question-dialog',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ question.title }}</h2>
    <mat-dialog-content>{{ question.words }}</mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close cdkFocusInitial>Keep</button>
      <button mat-flat-button [mat-dialog-close]="true">{{ question.action }}</button>
    </mat-dialog-actions>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionDialog {
  protected readonly question = inject<Question>(MAT_DIALOG_DATA);
}

/** Asks; whether it is meant. */
export async function askWhether(dialog: MatDialog, question: Question): Promise<boolean> {
  const asked = dialog.open<QuestionDialog, Question, boolean>(QuestionDialog, { data: question });
  return (await firstValueFrom(asked.afterClosed())) === true;
}
