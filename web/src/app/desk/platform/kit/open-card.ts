import { InjectionToken } from '@angular/core';

/** The card of a tool that is open beside the rail. */
export interface OpenCard {
  close(): void;
}

/** For the card itself. */
export const OPEN_CARD = new InjectionToken<OpenCard>('the open card');
