import { Injectable, signal } from '@angular/core';
import { z } from 'zod';
import { readKept } from '../settings/kept';
import { accountStorage } from '../storage/account';

const KEY = 'stylet.kept-bytes';
const MB = 1e6;
/** How much may be kept in this browser, in bytes; 0 for nothing. */
export const bounds = [0, 200 * MB, 1000 * MB, 5000 * MB] as const;
const USUAL = 1000 * MB;

/** How much of documents is kept in this browser, at most. */
@Injectable({ providedIn: 'root' })
export class KeptBound {
  private readonly chosen = signal(read());
  readonly bytes = this.chosen.asReadonly();

  choose(bytes: number): void {
    accountStorage.setItem(KEY, JSON.stringify(bytes));
    this.chosen.set(bytes);
  }
}

function read(): number {
  const { data } = z.number().min(0).safeParse(readKept(accountStorage, KEY));
  return data ?? USUAL;
}
