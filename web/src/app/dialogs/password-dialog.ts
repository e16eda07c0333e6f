import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';

export interface PasswordWanted {
  /** The file that asks for it. */
  readonly name: string;
  /** Whether one was given that is not its. */
  readonly wasWrong: boolean;
}

export interface PasswordGiven {
  readonly password: string;
  /** Whether it is tried for other files as well, until the window is closed. */
  readonly isKept: boolean;
}

/** Asks for the password of a PDF. */
@Component({
  selector: 'stylet-password-dialog',
  imports: [
    MatButtonModule,
    MatCheckboxModule,
    MatDialogModule,
    MatFormFieldModule,
    MatInputModule,
  ],
  template: `
    <form (submit)="give($event, field.value)">
      <h2 mat-dialog-title>Password of “{{ wanted.name }}”</h2>
      <mat-dialog-content>
        <p [class.wrong]="wanted.wasWrong" [attr.role]="wanted.wasWrong ? 'alert' : null">
          @if (wanted.wasWrong) {
            This was not its password. Mind capitals, and try again.
          } @else {
            This PDF opens only with its password, or its owner’s. The file is kept as it is; the
            password is not.
          }
        </p>
        <mat-form-field>
          <mat-label>Password</mat-label>
          <input
            matInput
            #field
            type="password"
            autocomplete="off"
            maxlength="1000"
            cdkFocusInitial
          />
        </mat-form-field>
        <mat-checkbox [checked]="isKept()" (change)="isKept.set($event.checked)">
          Try it for other files too, until this window is closed
        </mat-checkbox>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit">Open</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    mat-form-field {
      width: 100%;
    }

    .wrong {
      color: var(--madder);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PasswordDialog {
  protected readonly wanted = inject<PasswordWanted>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<PasswordDialog, PasswordGiven>>(MatDialogRef);
  protected readonly isKept = signal(false);

  protected give(event: Event, password: string): void {
    event.preventDefault();
    if (password !== '') this.dialog.close({ password, isKept: this.isKept() });
  }
}
