import { z } from 'zod';

/*
 * What text, numbers and dates can be that come in, from clients and out of files: as much as the database, PDF
 * (ISO 32000-1, annex C.2) and drawing can take. A client's are refused where they are something else; a file's are
 * made to fit, see core/pdf/storable.
 */

/** How far from its origin anything may lie, in points: 350 m. */
export const FARTHEST = 1_000_000;
/** The highest number of a column of 32 bits. */
export const HIGHEST = 2 ** 31 - 1;

/** Text PostgreSQL and UTF-8 can hold: without U+0000, and without halves of surrogate pairs. */
const STORABLE = /^[^\0\p{Cs}]*$/u;

/** Text of so many UTF-16 units at the most. */
export const text = (most: number) =>
  z.string().max(most).regex(STORABLE, { error: 'has characters that no text can have' });

/** Whether text has no character that cannot be stored. */
export const isStorable = (value: string): boolean => STORABLE.test(value);

/** Text as it can be stored: without U+0000, halves of pairs as U+FFFD, cut to so many UTF-16 units. */
export function storableText(value: string, most: number): string {
  const clean = isStorable(value)
    ? value
    : value.replaceAll('\0', '').replace(/\p{Cs}/gu, '\ufffd');
  if (clean.length <= most) return clean;
  const cut = clean.slice(0, most);
  return isStorable(cut) ? cut : cut.slice(0, -1);
}

/** A place or length on a page, in points. */
export const coordinate = z.number().min(-FARTHEST).max(FARTHEST);

/** A number as a coordinate can be. */
export const boundedCoordinate = (value: number): number =>
  Math.min(FARTHEST, Math.max(-FARTHEST, value));

/** How often, or the how-manieth. */
export const count = z.int().min(0).max(HIGHEST);

/** An ISO 8601 instant in universal time, of the years 1 to 9999. */
export const instant = z.iso
  .datetime()
  .refine((value) => value >= '0001', { error: 'there was no year 0' });

/** Where something stands among others: a fractional index. */
export const order = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[0-9A-Za-z]+$/);
