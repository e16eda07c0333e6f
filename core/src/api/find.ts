import { z } from 'zod';
import { count, text } from '../bounds/index';
import { digestSchema, idSchema } from '../document/index';
import { hitKinds, textLayers } from '../find/index';

/** What is looked for, as it is typed, and how words are compared. */
export const searchSchema = z.object({
  typed: text(500),
  keepsCase: z.boolean(),
  wholeWords: z.boolean(),
  /** Whether words that differ by a slip or two are found as well. */
  near: z.boolean(),
  /** The folder in whose documents it is looked, and in those within it; in all where there is none. */
  folder: idSchema.optional(),
});

const flag = z.enum(['true', 'false']).transform((value) => value === 'true');

/** The same as an address carries it; in one document when it is named, and from the n-th document on. */
export const findQuerySchema = z.object({
  typed: searchSchema.shape.typed,
  keepsCase: flag.default(false),
  wholeWords: flag.default(false),
  near: flag.default(false),
  folder: searchSchema.shape.folder,
  document: idSchema.optional(),
  from: z.coerce.number().int().nonnegative().max(10_000).default(0),
});

const boxSchema = z.object({ x0: z.number(), y0: z.number(), x1: z.number(), y1: z.number() });

/** A page on which something is found. */
export const foundPageSchema = z.object({
  id: idSchema,
  /** Its place in the document, counted from 0. */
  index: count,
  label: z.string(),
  source: digestSchema,
  sourceIndex: count,
  width: z.number(),
  height: z.number(),
  rotation: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
});

export const hitSchema = z.object({
  kind: z.enum(hitKinds),
  /** Null for what leads nowhere, such as a title. */
  page: foundPageSchema.nullable(),
  /** Where on the page, in page space; none where that is not known. */
  boxes: z.array(boxSchema),
  before: z.string(),
  match: z.string(),
  after: z.string(),
});

export const foundDocumentSchema = z.object({
  id: idSchema,
  title: z.string(),
  /** On so many pages all words stand. */
  pages: count,
  /** The best ones. */
  hits: z.array(hitSchema),
});

export const findResultSchema = z.object({
  /** Best first; a part of them. */
  documents: z.array(foundDocumentSchema),
  /** How many documents and pages there are in all. */
  documentCount: count,
  pageCount: count,
  /** Whether pages were counted by their words alone, so that a few may be counted too many. */
  isAbout: z.boolean(),
  /** Words that were found in place of what was typed, or that may have been meant. */
  neighbours: z.array(z.object({ typed: z.string(), word: z.string() })),
});

export const indexingSchema = z.object({
  /** Documents whose pages have not all been read, with how many have; `trouble` when that cannot be. */
  documents: z.array(
    z.object({
      id: idSchema,
      title: z.string(),
      pages: count,
      done: count,
      trouble: z.string().nullable(),
    }),
  ),
});

/** What stands on some pages of a file, from the `TEXTS_TOGETHER` · part-th on, as it was read for finding. */
export const storedTextsSchema = z.object({
  /** So many pages of the file, from the first, have been read: those that are not told have no text. */
  read: count,
  texts: z.array(
    z.object({
      /** Its place in the file, counted from 0. */
      page: count,
      layer: z.enum(textLayers),
      text: z.string(),
      /** Places and boxes of its words: `packWords` in core/find, in base64. */
      words: z.base64(),
    }),
  ),
});

export const savedSearchSchema = z.object({
  id: idSchema,
  name: text(200).trim().min(1),
  search: searchSchema,
});
export const savedSearchListSchema = z.object({ searches: z.array(savedSearchSchema) });

export type Search = z.infer<typeof searchSchema>;
export type FindRequest = z.infer<typeof findQuerySchema>;
export type Hit = z.infer<typeof hitSchema>;
export type FoundPage = z.infer<typeof foundPageSchema>;
export type FoundDocument = z.infer<typeof foundDocumentSchema>;
export type FindResult = z.infer<typeof findResultSchema>;
export type IndexingState = z.infer<typeof indexingSchema>;
export type StoredTexts = z.infer<typeof storedTextsSchema>;
export type SavedSearch = z.infer<typeof savedSearchSchema>;
