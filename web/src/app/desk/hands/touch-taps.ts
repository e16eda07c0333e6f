import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { TouchAction } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Editing } from '../document/editing';
import { TapRecogniser, type Finger } from '../gestures/tap-recogniser';
import { kitActions, kitFeature } from '../kit/kit.reducer';
import { ViewState } from '../pages/view-state';

const OFFERED = 'stylet.hands.offered';

/** Carries out what taps of fingers on the pages mean; offers to set them up at the first touch. */
@Injectable()
export class TouchTaps {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly view = inject(ViewState);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);
  private readonly hands = this.store.selectSignal(kitFeature.selectHands);

  /** Listens on an element until the returned function is called. */
  listen(element: HTMLElement): () => void {
    const meaning = (gesture: Parameters<TapRecogniser['found']>[0]): TouchAction =>
      this.hands()?.touch[gesture] ?? 'none';
    const taps = new TapRecogniser(
      (gesture) => meaning(gesture) !== 'none',
      (gesture) => this.perform(meaning(gesture)),
    );
    const listeners: [string, (event: PointerEvent) => void][] = [
      ['pointerdown', (event) => this.pressed(event, taps)],
      [
        'pointermove',
        (event) => (isTouch(event) ? taps.move(fingerOf(event)) : sawPen(event, taps)),
      ],
      ['pointerup', (event) => isTouch(event) && taps.lift(event.pointerId, event.timeStamp)],
      ['pointercancel', (event) => isTouch(event) && taps.cancel(event.pointerId)],
    ];
    for (const [type, listener] of listeners)
      element.addEventListener(type, listener as EventListener);
    return () => {
      taps.stop();
      for (const [type, listener] of listeners)
        element.removeEventListener(type, listener as EventListener);
    };
  }

  async setUp(): Promise<void> {
    const { HandsDialog } = await import('./hands-dialog');
    this.dialog.open(HandsDialog, { width: '460px' });
  }

  private pressed(event: PointerEvent, taps: TapRecogniser): void {
    sawPen(event, taps);
    if (!isTouch(event)) return;
    this.offer();
    taps.press(fingerOf(event));
  }

  private perform(action: TouchAction): void {
    switch (action) {
      case 'undo':
        return this.editing.undo();
      case 'redo':
        return this.editing.redo();
      case 'fit':
        return this.view.fit('width');
      case 'pen':
      case 'eraser':
        return this.store.dispatch(kitActions.toolTaken({ tool: action }));
      case 'none':
    }
  }

  /** Once, and only where nothing has been set up. */
  private offer(): void {
    if (this.hands() || localStorage.getItem(OFFERED)) return;
    localStorage.setItem(OFFERED, 'true');
    this.snackBar
      .open('Taps of your fingers can undo, redo and more.', 'Set up', { duration: 12_000 })
      .onAction()
      .subscribe(() => void this.setUp());
  }
}

const isTouch = (event: PointerEvent): boolean => event.pointerType === 'touch';

function sawPen(event: PointerEvent, taps: TapRecogniser): void {
  if (event.pointerType === 'pen') taps.sawPen(event.timeStamp);
}

const fingerOf = ({
  pointerId,
  clientX,
  clientY,
  timeStamp,
  width,
  height,
}: PointerEvent): Finger => ({
  id: pointerId,
  x: clientX,
  y: clientY,
  time: timeStamp,
  contact: Math.max(width, height),
});
