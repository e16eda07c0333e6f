import { z } from 'zod';
import { text } from '../bounds/index';
import { idSchema } from '../document/index';
import { documentSummarySchema } from './summary';

export const librarySortings = ['changed', 'added', 'title'] as const;
export type LibrarySorting = (typeof librarySortings)[number];

/** In one answer, at the most; what else there is comes after it. */
export const MOST_LISTED = 500;

/** Which documents to list: those of a folder, or of none, or all that lie within one. */
export const libraryQuerySchema = z.object({
  folder: z.union([idSchema, z.literal('none')]).optional(),
  within: idSchema.optional(),
  /** Words that all stand in the title. */
  title: text(300).optional(),
  sort: z.enum(librarySortings).default('changed'),
  limit: z.coerce.number().int().min(1).max(MOST_LISTED).default(100),
  /** `next` of the answer before. */
  after: text(1000).optional(),
});

export const libraryPartSchema = z.object({
  documents: z.array(documentSummarySchema),
  /** What to ask for those after them; null after the last. */
  next: z.string().nullable(),
});

export type LibraryQuery = z.input<typeof libraryQuerySchema>;
export type LibraryPart = z.infer<typeof libraryPartSchema>;
