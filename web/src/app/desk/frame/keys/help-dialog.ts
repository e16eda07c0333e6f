import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { HelpRow } from '../../platform/feature/commands';

@Component({
  selector: 'stylet-help-dialog',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Keys</h2>
    <mat-dialog-content tabindex="0">
      <dl>
        @for (row of keys; track $index) {
          <dt>{{ row.keys }}</dt>
          <dd>{{ row.does }}</dd>
        }
      </dl>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    dl {
      display: grid;
      gap: 8px 24px;
      grid-template-columns: auto 1fr;
      margin: 0;
    }
    dt {
      font-weight: 600;
    }
    dd {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HelpDialog {
  protected readonly keys = inject<readonly HelpRow[]>(MAT_DIALOG_DATA);
}
