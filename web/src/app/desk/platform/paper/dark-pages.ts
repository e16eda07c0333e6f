import { Injectable, effect, signal } from '@angular/core';
import { DARK_FILTER } from '@stylet/core/paint';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.dark-pages';

/** Whether pages, and all round them, are shown dark in this browser. Never what is exported. */
@Injectable({ providedIn: 'root' })
export class DarkPages {
  private readonly on = signal(accountStorage.getItem(KEY) !== null);
  readonly isOn = this.on.asReadonly();
  private readonly filter = DARK_FILTER;

  constructor() {
    effect(() => {
      const { classList, style } = document.documentElement;
      classList.toggle('dark', this.isOn());
      if (this.isOn()) style.setProperty('--dark', this.filter);
      else style.removeProperty('--dark');
    });
  }

  toggle(): void {
    this.on.update((isOn) => !isOn);
    if (this.on()) accountStorage.setItem(KEY, 'on');
    else accountStorage.removeItem(KEY);
  }
}
