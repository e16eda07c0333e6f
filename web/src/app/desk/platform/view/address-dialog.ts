import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';

/** Asks before a link leads out of the document, and shows the whole address. */
@Component({
  selector: 'stylet-address-dialog',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Open this address?</h2>
    <mat-dialog-content>
      <code>{{ url }}</code>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Stay here</button>
      <a mat-flat-button [href]="url" target="_blank" rel="noopener noreferrer" mat-dialog-close>
        Open
      </a>
    </mat-dialog-actions>
  `,
  styles: `
    code {
      overflow-wrap: anywhere;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AddressDialog {
  protected readonly url = inject<string>(MAT_DIALOG_DATA);
}
