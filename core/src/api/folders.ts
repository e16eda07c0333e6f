import { z } from 'zod';
import { text } from '../bounds/index';
import { idSchema } from '../document/index';

/** A folder of the library; without a parent it stands in the library itself. */
export const folderSchema = z.object({
  id: idSchema,
  name: text(120).trim().min(1),
  parentId: idSchema.nullable(),
});

export const folderListSchema = z.object({ folders: z.array(folderSchema) });

/** The folder that a document is put into; null for none. */
export const placedSchema = z.object({ folderId: idSchema.nullable() });

export type Folder = z.infer<typeof folderSchema>;
