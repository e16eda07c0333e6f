import { z } from 'zod';
import { count, text } from '../bounds/index';
import { idSchema } from '../document/index';

/** A folder of the library; without a parent it stands in the library itself. */
export const folderSchema = z.object({
  id: idSchema,
  name: text(120).trim().min(1),
  parentId: idSchema.nullable(),
});

/** Folders, by name, with how many documents each holds itself, and how many lie in none. */
export const folderListSchema = z.object({
  folders: z.array(folderSchema.extend({ documents: count })),
  outside: count,
});

/** The folder that a document is put into; null for none. */
export const placedSchema = z.object({ folderId: idSchema.nullable() });

export type Folder = z.infer<typeof folderSchema>;
export type FolderList = z.infer<typeof folderListSchema>;
