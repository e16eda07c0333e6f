import { Injectable, computed, inject, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { kitFeature } from '../../platform/kit/kit.reducer';
import { accountStorage } from '../../../storage/account';

const OFFERED = 'stylet.hands.offered';

/** Whether the card that sets the hands up is to be seen: from the first touch, once. */
@Injectable()
export class HandsCardState {
  private readonly hands = inject(Store).selectSignal(kitFeature.selectHands);
  private readonly isOpen = signal(false);
  readonly isShown = computed(() => this.isOpen() && !this.hands());

  /** A finger is on the pages. */
  touched(): void {
    if (this.hands() || accountStorage.getItem(OFFERED)) return;
    this.isOpen.set(true);
  }

  /** It has been seen, and is not offered again. */
  close(): void {
    accountStorage.setItem(OFFERED, 'true');
    this.isOpen.set(false);
  }
}
