import { generateKeyBetween } from 'fractional-indexing';
import { v7 } from 'uuid';

/** A new id: a UUID of version 7 (RFC 9562). */
export const newId = (): string => v7();

/** A painting order just above `last` (the topmost so far, or undefined on an empty page). */
export const orderAbove = (last: string | undefined): string =>
  generateKeyBetween(last ?? null, null);
