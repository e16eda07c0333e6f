import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialogModule } from '@angular/material/dialog';
import type { Hands, RestingArea, TouchAction, TouchGesture } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';

const unset: Hands = { writingHand: 'right', touch: {} };

/** Where a resting area is at first: the lower part of the pages. */
const FIRST_AREA: RestingArea = { x: 0, y: 0.66, width: 1, height: 0.34 };

/** Which hand writes, and what fingers on the page do besides panning and zooming. */
@Component({
  selector: 'stylet-hands-dialog',
  imports: [
    MatFormFieldModule,
    MatSelectModule,
    MatCheckboxModule,
    MatButtonModule,
    MatDialogModule,
  ],
  templateUrl: './hands-dialog.html',
  styleUrl: './hands-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandsDialog {
  private readonly store = inject(Store);
  private readonly kept = this.store.selectSignal(kitFeature.selectHands);
  protected readonly hands = computed(() => this.kept() ?? unset);

  protected readonly gestures: readonly { value: TouchGesture; words: string }[] = [
    { value: 'oneDoubleTap', words: 'One finger, tapped twice' },
    { value: 'twoTap', words: 'Two fingers, tapped' },
    { value: 'twoDoubleTap', words: 'Two fingers, tapped twice' },
    { value: 'twoHold', words: 'Two fingers, held' },
    { value: 'threeTap', words: 'Three fingers, tapped' },
    { value: 'threeDoubleTap', words: 'Three fingers, tapped twice' },
    { value: 'threeHold', words: 'Three fingers, held' },
    { value: 'fourTap', words: 'Four fingers, tapped' },
  ];
  protected readonly actions: readonly { value: TouchAction; words: string }[] = [
    { value: 'none', words: 'nothing' },
    { value: 'undo', words: 'undo' },
    { value: 'redo', words: 'redo' },
    { value: 'fit', words: 'fit the width' },
    { value: 'pen', words: 'take the last pen' },
    { value: 'eraser', words: 'take the eraser' },
  ];

  protected actionOf(gesture: TouchGesture): TouchAction {
    return this.hands().touch[gesture] ?? 'none';
  }

  protected assign(gesture: TouchGesture, action: string): void {
    const touch = { ...this.hands().touch, [gesture]: action as TouchAction };
    this.change({ touch });
  }

  protected chooseHand(writingHand: Hands['writingHand']): void {
    this.change({ writingHand });
  }

  protected setFingersDraw(fingersDraw: boolean): void {
    this.change({ fingersDraw });
  }

  protected setRestingArea(isShown: boolean): void {
    this.change({ restingArea: isShown ? FIRST_AREA : undefined });
  }

  private change(change: Partial<Hands>): void {
    this.store.dispatch(kitActions.handsChanged({ hands: { ...this.hands(), ...change } }));
  }
}
