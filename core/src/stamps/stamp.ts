import { z } from 'zod';
import { order, text } from '../bounds/index';
import { annotationSchema, idSchema, pictureSchema } from '../document/index';

/** How much of it there can be for one account. */
export const STAMP_BOUNDS = { sheets: 200, stamps: 5000, atOnce: 300 } as const;

/** Stamps that are kept together, as on a sheet of them. */
export const stampSheetSchema = z.object({
  id: idSchema,
  name: text(120).min(1),
  order,
  removed: z.boolean(),
});

/**
 * A drawing that is laid on pages again and again: a picture's file, what of it is meant, and how large it was made (points).
 */
export const stampSchema = pictureSchema
  .pick({ digest: true, medium: true, width: true, height: true, crop: true })
  .extend({
    id: idSchema,
    sheet: idSchema,
    name: text(120).min(1),
    order,
    /** The sides of what is meant of the picture, as it was made, in points. */
    size: z.object({
      width: z.number().positive().max(20_000),
      height: z.number().positive().max(20_000),
    }),
    /** One that is wanted often. */
    favourite: z.boolean(),
    removed: z.boolean(),
  });

export const stampListSchema = z.object({
  sheets: z.array(stampSheetSchema),
  stamps: z.array(stampSchema),
});

/** What is kept of sheets and stamps, in place of what was. */
export const stampChangeSchema = z.object({
  sheets: z.array(stampSheetSchema).max(STAMP_BOUNDS.sheets),
  stamps: z.array(stampSchema).max(STAMP_BOUNDS.atOnce),
});

export type StampSheet = z.infer<typeof stampSheetSchema>;
export type Stamp = z.infer<typeof stampSchema>;
export type StampList = z.infer<typeof stampListSchema>;
export type StampChange = z.infer<typeof stampChangeSchema>;

/** A page of a file, as a picture from which stamps can be made. */
export const sheetPageSchema = pictureSchema
  .pick({ digest: true, medium: true, width: true, height: true })
  .extend({ name: text(120) });
export const sheetPagesSchema = z.object({
  /** What the file is called in itself, if it is. */
  title: text(300).optional(),
  pages: z.array(sheetPageSchema).max(STAMP_BOUNDS.atOnce),
});
export type SheetPage = z.infer<typeof sheetPageSchema>;
export type SheetPages = z.infer<typeof sheetPagesSchema>;

/** As many annotations as one stamp can be made of. */
export const MOST_DRAWN = 5000;

/** Annotations of which a picture is made, in the space of one page. */
export const drawingSchema = z.object({
  annotations: z.array(annotationSchema).min(1).max(MOST_DRAWN),
});
