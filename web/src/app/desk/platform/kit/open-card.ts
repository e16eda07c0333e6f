import { Injectable, InjectionToken, signal } from '@angular/core';

/** The card of a tool that is open beside the rail. */
export interface OpenCard {
  close(): void;
}

/** For the card itself. */
export const OPEN_CARD = new InjectionToken<OpenCard>('the open card');

/** Which card is open beside the rail: that of a tool, of a slot, or the rail's own. */
@Injectable()
export class OpenCards {
  readonly id = signal<string | undefined>(undefined);
}
