import { Injectable } from '@angular/core';
import { newId } from '@stylet/core/document';
import { ownKey } from './own-storage';

const KEY = 'stylet.window';
/** How long a page that is being reloaded may take to let go of its name, in ms. */
const LETTING_GO = 400;

/** A name for this window that a reload keeps, and that no other open window has. */
@Injectable({ providedIn: 'root' })
export class WindowId {
  private id: Promise<string> | undefined;

  get(): Promise<string> {
    this.id ??= this.find();
    return this.id;
  }

  private async find(): Promise<string> {
    const kept = sessionStorage.getItem(ownKey(KEY));
    // A duplicated window has a copy of the other's name, which that one holds on to.
    if (kept && (await this.hold(kept))) return kept;
    const fresh = newId();
    sessionStorage.setItem(ownKey(KEY), fresh);
    await this.hold(fresh);
    return fresh;
  }

  /** Holds a name for as long as the window is open. Returns whether it could be had. */
  private hold(id: string): Promise<boolean> {
    // Without locks (pages that do not come over HTTPS) a duplicate cannot be told from the original.
    if (!('locks' in navigator)) return Promise.resolve(true);
    return new Promise((resolve) => {
      const signal = AbortSignal.timeout(LETTING_GO);
      navigator.locks
        .request(`${KEY} ${id}`, { signal }, () => {
          resolve(true);
          return new Promise<never>(() => undefined);
        })
        .catch(() => resolve(false));
    });
  }
}
