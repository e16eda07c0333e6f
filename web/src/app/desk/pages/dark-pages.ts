import { Injectable, signal } from '@angular/core';
import { DARK_FILTER } from '@stylet/core/paint';

const KEY = 'stylet.dark-pages';

/** Whether pages are shown dark, in this browser. Only how they look: never what is exported. */
@Injectable({ providedIn: 'root' })
export class DarkPages {
  private readonly on = signal(localStorage.getItem(KEY) !== null);
  readonly isOn = this.on.asReadonly();
  readonly filter = DARK_FILTER;

  toggle(): void {
    this.on.update((isOn) => !isOn);
    if (this.on()) localStorage.setItem(KEY, 'on');
    else localStorage.removeItem(KEY);
  }
}
