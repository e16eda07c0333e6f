import { z } from 'zod';
import { coordinate, count, instant, order, text } from '../bounds/index';
import { colorSchema, idSchema } from './common-fields';

/** A place that goes where its page goes: a page, and where on it (page space) if that is known. */
export const placeSchema = z.object({
  pageId: idSchema,
  x: coordinate.optional(),
  y: coordinate.optional(),
});

/** An entry of the outline, under another one or at the top; `order` among those beside it. */
export const outlineEntrySchema = z.object({
  kind: z.literal('outline'),
  id: idSchema,
  parentId: idSchema.optional(),
  order,
  title: text(2000),
  place: placeSchema.optional(),
  /** Whether those under it show at first. */
  open: z.boolean(),
  /** The object it was in the imported file. */
  origin: z.object({ object: count, generation: count }).optional(),
});

export const bookmarkSchema = z.object({
  kind: z.literal('bookmark'),
  id: idSchema,
  place: placeSchema,
  title: text(300),
  color: colorSchema.optional(),
  created: instant,
});

/** A word hung on a place, or on handwriting there, which then is its face. */
export const keywordSchema = z.object({
  kind: z.literal('keyword'),
  id: idSchema,
  place: placeSchema,
  word: text(200),
  annotationIds: z.array(idSchema).max(1000).optional(),
  created: instant,
});

/** What people find their way by: the outline, bookmarks, keywords. */
export const landmarkSchema = z.discriminatedUnion('kind', [
  outlineEntrySchema,
  bookmarkSchema,
  keywordSchema,
]);

/** The fields of a landmark that can be changed in place; those it may lack go when they are null. */
export const landmarkFieldsSchema = z
  .object({
    parentId: idSchema.nullable(),
    order: outlineEntrySchema.shape.order,
    title: outlineEntrySchema.shape.title,
    word: keywordSchema.shape.word,
    place: placeSchema,
    open: z.boolean(),
    color: colorSchema.nullable(),
  })
  .partial();

export type Place = z.infer<typeof placeSchema>;
export type OutlineEntry = z.infer<typeof outlineEntrySchema>;
export type Bookmark = z.infer<typeof bookmarkSchema>;
export type Keyword = z.infer<typeof keywordSchema>;
export type Landmark = z.infer<typeof landmarkSchema>;
export type LandmarkFields = z.infer<typeof landmarkFieldsSchema>;
export type Landmarks = Readonly<Record<string, Landmark>>;
