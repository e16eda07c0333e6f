import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Shorthand } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { PenPresence } from '../../platform/input/pen-presence';
import { kitActions, kitFeature } from '../../platform/kit/kit.reducer';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.shorthand-offered';
/** Asked this long after the stroke, in ms, and not while one writes on. */
const AFTER = 1200;
const SHOWN = 12_000;

const words: Record<keyof Shorthand, string> = {
  scratchOut: 'Scratched something out? Shorthand can remove what you scratch over.',
  ring: 'Ringed something? Shorthand can select what you ring and hold.',
  box: 'Boxed something? Shorthand can snip what you box and hold.',
};

/** Offers shorthand once, when a stroke looks like it. Kept in this browser. */
@Injectable()
export class ShorthandOffer {
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly pen = inject(PenPresence);
  private readonly shorthand = this.store.selectSignal(kitFeature.selectShorthand);
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Asked with every sample of a stroke: storage is not. */
  private due = accountStorage.getItem(KEY) === null;

  isDue(): boolean {
    return this.due;
  }

  /** A stroke that is being drawn looks like shorthand that is off. */
  noted(kind: keyof Shorthand): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.offer(kind), AFTER);
  }

  private offer(kind: keyof Shorthand): void {
    if (this.pen.isDown()) {
      this.noted(kind);
      return;
    }
    this.due = false;
    // Turned on meanwhile, it would only take the place of what is told of it.
    if (this.shorthand()[kind]) return;
    // Another window may have offered it.
    if (accountStorage.getItem(KEY) !== null) return;
    accountStorage.setItem(KEY, 'yes');
    this.snackBar
      .open(words[kind], 'Turn on', { duration: SHOWN })
      .onAction()
      .subscribe(() =>
        this.store.dispatch(kitActions.shorthandChanged({ change: { [kind]: true } })),
      );
  }
}
