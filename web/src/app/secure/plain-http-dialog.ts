import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule } from '@angular/material/dialog';

/** What does not work over http, and how to have a certificate of one's own. */
@Component({
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Over http some things do not work</h2>
    <mat-dialog-content>
      <p>
        Writing, reading, finding and saving work. Browsers keep from such pages: pasting and
        copying by buttons, the camera, reports of the pen between frames, and whatever others on
        this network could read along.
      </p>
      <p>On the machine that runs Stylet, in its folder, make a certificate of your own:</p>
      <pre>./stylet certificate {{ host }}</pre>
      <p>
        It says where to open Stylet then, and how this device comes to trust it. That is done once
        for each device.
      </p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-flat-button mat-dialog-close cdkFocusInitial>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    pre {
      background: var(--hover);
      border-radius: 6px;
      overflow-x: auto;
      padding: 10px 12px;
      user-select: all;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlainHttpDialog {
  protected readonly host = location.hostname;
}
