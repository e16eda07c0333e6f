import { Injectable } from '@angular/core';
import { newId } from '@stylet/core/document';
import { ownKey } from './own-storage';
import { accountChannel, nameHere, windowStorage } from './account';

const KEY = 'stylet.window';
/** How long a name is waited for that nobody answers for, in ms: a page that is being reloaded lets go late. */
const LETTING_GO = 8000;

/** A name for this window that a reload keeps, and that no other open window has. */
@Injectable({ providedIn: 'root' })
export class WindowId {
  private id: Promise<string> | undefined;

  get(): Promise<string> {
    this.id ??= this.find();
    return this.id;
  }

  private async find(): Promise<string> {
    const kept = windowStorage.getItem(ownKey(KEY));
    // A duplicated window has a copy of the other's name, which that one holds on to.
    if (kept && (await this.hold(kept))) return kept;
    const fresh = newId();
    windowStorage.setItem(ownKey(KEY), fresh);
    await this.hold(fresh);
    return fresh;
  }

  /**
   * Holds a name for as long as the window is open. Returns whether it could be had.
   * A page that is going lets go of its name some time, and answers no more; a window that stays says so.
   */
  private hold(id: string): Promise<boolean> {
    // Without locks (pages that do not come over HTTPS) a duplicate cannot be told from the original.
    if (!('locks' in navigator)) return Promise.resolve(true);
    const name = `${KEY} ${id}`;
    const others = accountChannel(name);
    return new Promise((resolve) => {
      const waiting = new AbortController();
      const giveUp = (): void => waiting.abort();
      const timer = setTimeout(giveUp, LETTING_GO);
      others.onmessage = ({ data }) => {
        if (data === 'taken') giveUp();
      };
      navigator.locks
        .request(nameHere(name), { signal: waiting.signal }, () => {
          clearTimeout(timer);
          others.onmessage = ({ data }) => {
            if (data === 'whose') others.postMessage('taken');
          };
          // Windows that asked before this one had the name have heard no answer yet.
          others.postMessage('taken');
          resolve(true);
          return new Promise<never>(() => undefined);
        })
        .catch(() => {
          clearTimeout(timer);
          others.close();
          resolve(false);
        });
      others.postMessage('whose');
    });
  }
}
