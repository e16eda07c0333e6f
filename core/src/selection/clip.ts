import { z } from 'zod';
import { annotationSchema } from '../document/index';

/** The type of what is copied, on the clipboard. */
export const CLIP_TYPE = 'application/vnd.stylet.annotations+json';

/** What is copied or cut: annotations in painting order, in the space of the page they were on. */
export const clipSchema = z.object({
  version: z.literal(1),
  documentId: z.string(),
  pageId: z.string(),
  annotations: z.array(annotationSchema).min(1),
});
export type Clip = z.infer<typeof clipSchema>;
