import { z } from 'zod';
import { count, text } from '../bounds/index';
import { digestSchema } from '../document/index';
import { typedTextSchema } from '../typed-pages/index';

/** The text of a document's typed pages, and the file they are of. */
export const documentTextSchema = z.object({
  source: digestSchema,
  text: typedTextSchema,
});

/** What a text has become; `base` is the file that it was read from. */
export const textChangeSchema = z.object({
  base: digestSchema,
  text: typedTextSchema,
  author: text(200),
});

export const textChangedSchema = z.object({ source: digestSchema, revision: count });

export const writtenTexts = ['markdown', 'html'] as const;
export const writtenTextQuerySchema = z.object({ as: z.enum(writtenTexts) });

export type DocumentText = z.infer<typeof documentTextSchema>;
export type TextChange = z.infer<typeof textChangeSchema>;
export type TextChanged = z.infer<typeof textChangedSchema>;
export type WrittenText = (typeof writtenTexts)[number];
