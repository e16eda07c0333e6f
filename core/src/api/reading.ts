import { z } from 'zod';
import { instant } from '../bounds/index';
import { idSchema } from '../document/index';

/** Where one is in a document: a page, and how far down it, as a share of its height as shown. */
export const readingPlaceSchema = z.object({
  pageId: idSchema,
  share: z.number().min(-1).max(2),
});

/** A page that was looked at: when first, and when last. */
export const seenPageSchema = z.object({
  pageId: idSchema,
  first: instant,
  last: instant,
});

export const readingSchema = z.object({
  place: readingPlaceSchema.nullable(),
  seen: z.array(seenPageSchema),
});

/** Where one is now, and the pages seen since this was last told. */
export const readingReportSchema = z.object({
  place: readingPlaceSchema,
  seen: z.array(idSchema).max(1000),
});

export type ReadingPlace = z.infer<typeof readingPlaceSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type SeenPage = z.infer<typeof seenPageSchema>;
export type ReadingReport = z.infer<typeof readingReportSchema>;
