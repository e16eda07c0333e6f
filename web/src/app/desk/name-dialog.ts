import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Author } from '../settings/author';

/** Asks for the name that goes on annotations. */
@Component({
  selector: 'stylet-name-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule],
  template: `
    <form (submit)="keep($event, field.value)">
      <h2 mat-dialog-title>Your name</h2>
      <mat-dialog-content>
        <p>It stands on what you write from now on, and others see it in the exported PDF.</p>
        <mat-form-field>
          <mat-label>Name</mat-label>
          <input matInput #field maxlength="200" [value]="author.name()" cdkFocusInitial />
        </mat-form-field>
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" mat-dialog-close>Cancel</button>
        <button mat-flat-button type="submit">Keep</button>
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
export class NameDialog {
  protected readonly author = inject(Author);
  private readonly dialog = inject(MatDialogRef<NameDialog>);

  protected keep(event: Event, name: string): void {
    event.preventDefault();
    this.author.rename(name);
    this.dialog.close();
  }
}
