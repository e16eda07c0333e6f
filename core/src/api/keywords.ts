import { z } from 'zod';
import { annotationSchema, idSchema, placeSchema } from '../document/index';

/** A keyword where it is hung: its document and page, and the handwriting that is its face, if any. */
export const hungKeywordSchema = z.object({
  id: idSchema,
  word: z.string(),
  documentId: idSchema,
  title: z.string(),
  place: placeSchema,
  label: z.string(),
  face: z.array(annotationSchema),
});

export const keywordListSchema = z.object({ keywords: z.array(hungKeywordSchema) });

export type HungKeyword = z.infer<typeof hungKeywordSchema>;
