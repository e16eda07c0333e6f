import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { TouchAction } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Editing } from '../../platform/document/editing';
import { TapRecogniser, type Finger } from '../../platform/input/tap-recogniser';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { ViewState } from '../../platform/view/view-state';
import { contactOf, isTouch } from '../../platform/input/contact';
import { HandsCardState } from './hands-card-state';
import { PenPresence } from '../../platform/input/pen-presence';

/** Carries out what taps of fingers on the pages mean; offers to set them up at the first touch. */
@Injectable()
export class TouchTaps {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly view = inject(ViewState);
  private readonly dialog = inject(MatDialog);
  private readonly card = inject(HandsCardState);
  private readonly pen = inject(PenPresence);
  private readonly hands = this.store.selectSignal(kitFeature.selectHands);

  /** Listens on an element until the returned function is called. */
  listen(element: HTMLElement): () => void {
    const meaning = (gesture: Parameters<TapRecogniser['found']>[0]): TouchAction => {
      const { touch, fingersDraw } = this.hands() ?? { touch: {} };
      // A finger that draws makes dots with its taps.
      return fingersDraw && gesture === 'oneDoubleTap' ? 'none' : (touch[gesture] ?? 'none');
    };
    const taps = new TapRecogniser(
      (gesture) => meaning(gesture) !== 'none',
      (gesture) => this.perform(meaning(gesture)),
      (time) => this.pen.isNear(time),
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
    this.card.touched();
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
}

function sawPen({ pointerType }: PointerEvent, taps: TapRecogniser): void {
  if (pointerType === 'pen') taps.sawPen();
}

const fingerOf = (event: PointerEvent): Finger => ({
  id: event.pointerId,
  x: event.clientX,
  y: event.clientY,
  time: event.timeStamp,
  contact: contactOf(event),
});
