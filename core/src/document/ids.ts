import { generateKeyBetween } from 'fractional-indexing';
import { v5, v7 } from 'uuid';

/** A new id: a UUID of version 7 (RFC 9562). */
export const newId = (): string => v7();

/** What of a document has ids of its own. */
export type Identified = 'page' | 'annotation' | 'landmark' | 'group';
/** Gives one id after the other. */
export type Ids = (of: Identified) => string;

/**
 * Ids that follow from a document's (UUIDs of version 5; RFC 9562, 5.5): whoever reads the same file for the same document,
 * browser or server, gives what is in it the same.
 */
export function idsFor(documentId: string): Ids {
  const given: Record<Identified, number> = { page: 0, annotation: 0, landmark: 0, group: 0 };
  return (of) => v5(`${of} ${given[of]++}`, documentId);
}

/** A painting order just above `last` (the topmost so far, or undefined on an empty page). */
export const orderAbove = (last: string | undefined): string =>
  generateKeyBetween(last ?? null, null);

/** When an id of version 7 was made (RFC 9562, 5.7), as an ISO 8601 instant; undefined for those of other versions. */
export function madeAt(id: string): string | undefined {
  const digits = id.replaceAll('-', '');
  return digits[12] === '7' ? new Date(parseInt(digits.slice(0, 12), 16)).toISOString() : undefined;
}
