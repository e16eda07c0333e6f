import { Injectable, signal } from '@angular/core';
import { accountStorage } from '../storage/account';

const KEY = 'stylet.author';

/** The name that stands on annotations made here (/T in the PDF). Kept in this browser. */
@Injectable({ providedIn: 'root' })
export class Author {
  private readonly chosen = signal(accountStorage.getItem(KEY) ?? '');

  /** What goes on annotations; a stand-in until a name is given. */
  readonly name = (): string => this.chosen() || 'Me';

  /** What was given as a name; nothing else says who somebody is to others. */
  readonly given = (): string => this.chosen();

  rename(name: string): void {
    const tidy = name.trim().slice(0, 200);
    this.chosen.set(tidy);
    accountStorage.setItem(KEY, tidy);
  }
}
