import { z } from 'zod';
import { text } from '../bounds/index';
import { idSchema } from '../document/index';
import { readingPlaceSchema } from './reading';

/** Numbers of points that come at once, two a point. */
const MOST_NUMBERS = 128;
/** Points of page space; further out nothing is seen. */
const coordinate = z.number().min(-20_000).max(20_000);

/** How many colours windows are told apart by. */
export const HUES = 6;
/** A window that has not been heard of for so long, in ms, is not here any more; it says more often that it is. */
export const PRESENCE_LASTS = 30_000;
/** What one window says of itself is told to others so often a second, at the most. */
export const PRESENCES_A_SECOND = 25;

/** A pen over a page, before what it writes is an operation. */
export const penPresenceSchema = z.object({
  pageId: idSchema,
  /** Which stroke of the window's it is; null for a pen that is only near. */
  stroke: z.int().min(0).nullable(),
  /** Which of the stroke's points the first of these is. */
  from: z.int().min(0).max(1_000_000),
  /** x and y in turn, points of page space. */
  points: z.array(coordinate).min(2).max(MOST_NUMBERS),
  /** Whether it only points at something, and fades. */
  fades: z.boolean(),
});

/** What a window tells others of itself: nothing of it is kept. */
export const presenceSchema = z.object({
  name: text(200),
  hue: z
    .int()
    .min(0)
    .max(HUES - 1),
  /** Where it is. */
  place: readingPlaceSchema.nullable(),
  pen: penPresenceSchema.nullable(),
});

export type PenPresence = z.infer<typeof penPresenceSchema>;
export type Presence = z.infer<typeof presenceSchema>;
