import { z } from 'zod';
import { count, instant } from '../bounds/index';
import { idSchema, noticeSchema } from '../document/index';

export const documentSummarySchema = z.object({
  id: idSchema,
  title: z.string(),
  pageCount: z.int().positive(),
  /** Size of the original in bytes, and its SHA-256. */
  size: z.int().positive(),
  digest: z.string(),
  created: instant,
  modified: instant,
  revision: count,
  annotationCount: count,
  /** The folder it is in. */
  folderId: idSchema.nullable(),
  /** What had to be done to the file on import; the original is kept all the same. */
  repair: z.enum(['none', 'repaired', 'unlocked']),
  /** What else there is to say about it. */
  notices: z.array(noticeSchema),
  /** Since when it is in the trash. */
  trashed: instant.nullable(),
});
