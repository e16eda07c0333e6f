import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import type { Hands } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { kitActions } from '../../platform/kit/kit.reducer';
import { HandsCardState } from './hands-card-state';
import { TouchTaps } from './touch-taps';

/** What most people want of their fingers. */
const SUGGESTED: Hands['touch'] = { twoTap: 'undo', threeTap: 'redo', twoHold: 'eraser' };

/** Shown with the first touch: sets up what fingers do, in one tap. */
@Component({
  selector: 'stylet-hands-card',
  imports: [MatCheckboxModule, MatButtonModule],
  templateUrl: './hands-card.html',
  styleUrl: './hands-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandsCard {
  private readonly store = inject(Store);
  private readonly state = inject(HandsCardState);
  private readonly taps = inject(TouchTaps);
  protected readonly writingHand = signal<Hands['writingHand']>('right');
  protected readonly fingersDraw = signal(false);

  protected accept(): void {
    const hands: Hands = {
      writingHand: this.writingHand(),
      touch: SUGGESTED,
      fingersDraw: this.fingersDraw(),
    };
    this.store.dispatch(kitActions.handsChanged({ hands }));
    this.state.close();
  }

  protected more(): void {
    this.state.close();
    void this.taps.setUp();
  }

  protected close(): void {
    this.state.close();
  }
}
