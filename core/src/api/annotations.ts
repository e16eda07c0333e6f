import { z } from 'zod';
import { count } from '../bounds/index';
import { annotationSchema, idSchema } from '../document/index';

/** So many pages can be asked for at once. */
export const MOST_PAGES_READ = 200;

/**
 * Which annotations are asked for: all; those of some pages; or as many as `most` allows, of whole pages from `near` on,
 * or from where its reader was last.
 */
export const annotationQuerySchema = z
  .object({
    most: z.coerce.number().pipe(z.int().min(1).max(100_000)).optional(),
    near: idSchema.optional(),
    pages: z
      .string()
      .transform((ids) => ids.split(','))
      .pipe(z.array(idSchema).min(1).max(MOST_PAGES_READ))
      .optional(),
  })
  .refine(({ most, pages }) => most === undefined || pages === undefined, {
    message: 'pages and most exclude each other',
  });

export const annotationListSchema = z.object({
  revision: count,
  annotations: z.array(annotationSchema),
  /** Pages whose annotations were left out because of `most`, and how many they have. */
  unread: z.array(z.object({ pageId: idSchema, count: z.int().positive() })),
});

export type AnnotationQuery = z.infer<typeof annotationQuerySchema>;
export type AnnotationList = z.infer<typeof annotationListSchema>;
