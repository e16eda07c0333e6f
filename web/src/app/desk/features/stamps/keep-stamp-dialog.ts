import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import type { StampSheet } from '@stylet/core/stamps';

/** What a stamp is called, and the sheet it goes onto: one there is, or a new one. */
export interface KeptAs {
  readonly name: string;
  readonly sheet: string;
  readonly newSheet: string;
}

/** Asks what a stamp is to be called, and which sheet it goes onto. */
@Component({
  selector: 'stylet-keep-stamp-dialog',
  imports: [MatButtonModule, MatDialogModule, MatFormFieldModule, MatInputModule, MatSelectModule],
  template: `
    <h2 mat-dialog-title>Keep as a stamp</h2>
    <mat-dialog-content>
      <mat-form-field>
        <mat-label>Name</mat-label>
        <input
          #called
          matInput
          cdkFocusInitial
          maxlength="120"
          [value]="name()"
          (input)="name.set(called.value)"
          (keydown.enter)="done()"
        />
      </mat-form-field>
      <mat-form-field>
        <mat-label>Sheet</mat-label>
        <mat-select [value]="sheet()" (valueChange)="sheet.set($event)">
          @for (one of data.sheets; track one.id) {
            <mat-option [value]="one.id">{{ one.name }}</mat-option>
          }
          <mat-option value="">A new sheet</mat-option>
        </mat-select>
      </mat-form-field>
      @if (sheet() === '') {
        <mat-form-field>
          <mat-label>Name of the new sheet</mat-label>
          <input
            #named
            matInput
            maxlength="120"
            [value]="newSheet()"
            (input)="newSheet.set(named.value)"
            (keydown.enter)="done()"
          />
        </mat-form-field>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Cancel</button>
      <button mat-flat-button [disabled]="!canBe()" (click)="done()">Keep</button>
    </mat-dialog-actions>
  `,
  styles: 'mat-form-field { display: block; margin-top: 6px; width: min(320px, 70vw); }',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepStampDialog {
  protected readonly data = inject<{ name: string; sheets: readonly StampSheet[] }>(
    MAT_DIALOG_DATA,
  );
  private readonly dialog = inject<MatDialogRef<KeepStampDialog, KeptAs>>(MatDialogRef);
  protected readonly name = signal(this.data.name.slice(0, 120));
  protected readonly sheet = signal('');
  protected readonly newSheet = signal('My stamps');
  protected readonly canBe = computed(
    () => this.name().trim() !== '' && (this.sheet() !== '' || this.newSheet().trim() !== ''),
  );

  protected done(): void {
    if (!this.canBe()) return;
    this.dialog.close({
      name: this.name().trim(),
      sheet: this.sheet(),
      newSheet: this.newSheet().trim(),
    });
  }
}
