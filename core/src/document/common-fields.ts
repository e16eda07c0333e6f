import { z } from 'zod';
import { coordinate, count, instant, order, text } from '../bounds/index';

/** Lower-case UUID; new ones are version 7 (RFC 9562), so that they sort by time of creation. */
export const idSchema = z.uuid().regex(/^[^A-F]*$/, { error: 'has capitals' });
export const colorSchema = z.string().regex(/^#[0-9a-f]{6}$/i);

/** A file's SHA-256, in lower-case hexadecimal. */
export const digestSchema = z.string().regex(/^[0-9a-f]{64}$/);

/** Where an annotation stands in an imported file, and its date there; undefined for our own. */
export const originSchema = z.object({
  /** The file; the document's own where it is not said. */
  source: digestSchema.optional(),
  object: count,
  generation: count,
  /** `modified` as imported: while it is unchanged, the file's own object is left alone. */
  modified: instant,
});

/** What every annotation has. */
export const placed = {
  id: idSchema,
  pageId: idSchema,
  /** Place in the painting order of the page: a fractional index, compared as a plain string. */
  order,
  opacity: z.number().min(0).max(1),
  author: text(200),
  created: instant,
  modified: instant,
  origin: originSchema.optional(),
  /** Annotations of one group are selected together. */
  group: idSchema.optional(),
  /** What is locked is not selected by drawing round it, and not erased. */
  locked: z.boolean().optional(),
  /** Its file says that it is not to be seen (ISO 32000-1, table 165: Hidden, NoView); it stays in it. */
  hidden: z.boolean().optional(),
};

/** What every annotation has that is of one colour. */
export const common = { ...placed, color: colorSchema };

/** An affine map that flattens nothing; see `Matrix`. */
export const matrixSchema = z
  .tuple([coordinate, coordinate, coordinate, coordinate, coordinate, coordinate])
  .refine(([a, b, c, d]) => Math.abs(a * d - b * c) > 1e-12, {
    error: 'a map that flattens the page cannot be taken back',
  });

/**
 * A quadrilateral on a line of text, in page space: top left, top right, bottom left, bottom right
 * as the text is read.
 */
export const quadSchema = z.tuple([
  coordinate,
  coordinate,
  coordinate,
  coordinate,
  coordinate,
  coordinate,
  coordinate,
  coordinate,
]);

export type Origin = z.infer<typeof originSchema>;
export type Quad = z.infer<typeof quadSchema>;
