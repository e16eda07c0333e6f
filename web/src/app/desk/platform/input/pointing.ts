import { Injectable, signal } from '@angular/core';

/** Whether what moves over the pages only points at something, and fades. */
@Injectable({ providedIn: 'root' })
export class Pointing {
  readonly isOn = signal(false);
}
