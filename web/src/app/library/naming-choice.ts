import { Injectable } from '@angular/core';
import { namings, type Naming } from '@stylet/core/api';
import { z } from 'zod';
import { readKept } from '../settings/kept';
import { accountStorage } from '../storage/account';

const KEY = 'stylet.naming';

/** By what documents are called that come: whichever says more, until one chooses. Kept in this browser. */
@Injectable({ providedIn: 'root' })
export class NamingChoice {
  chosen(): Naming {
    return z.enum(namings).safeParse(readKept(accountStorage, KEY)).data ?? 'better';
  }

  choose(naming: Naming): void {
    accountStorage.setItem(KEY, JSON.stringify(naming));
  }
}
