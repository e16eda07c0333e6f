import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialogModule } from '@angular/material/dialog';
import type { Shorthand } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';

/** Which pen gestures act instead of being ink. */
@Component({
  selector: 'stylet-shorthand-dialog',
  imports: [MatCheckboxModule, MatButtonModule, MatDialogModule],
  templateUrl: './shorthand-dialog.html',
  styleUrl: './shorthand-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShorthandDialog {
  private readonly store = inject(Store);
  protected readonly shorthand = this.store.selectSignal(kitFeature.selectShorthand);

  protected readonly choices: readonly {
    value: keyof Shorthand;
    name: string;
    words: string;
    way: string;
  }[] = [
    {
      value: 'scratchOut',
      name: 'Scratch out',
      words: 'To and fro over writing, at least five times: what is under it goes when you lift.',
      way: 'M4 30 L44 12 L12 32 L50 14 L20 34 L58 16',
    },
    {
      value: 'ring',
      name: 'Ring and hold',
      words: 'A ring round writing, held at its end, selects it. Hold on for the shape instead.',
      way: 'M30 8 C52 6 60 18 54 30 C46 42 14 42 8 28 C4 14 16 8 34 9',
    },
    {
      value: 'box',
      name: 'Box and hold',
      words: 'A box, held at its end, puts what it holds on the clipboard as a picture.',
      way: 'M8 9 L54 8 L55 38 L9 39 L8 10',
    },
  ];

  protected set(value: keyof Shorthand, isOn: boolean): void {
    this.store.dispatch(kitActions.shorthandChanged({ change: { [value]: isOn } }));
  }
}
