import { z } from 'zod';

/** Lower-case UUID; new ones are version 7 (RFC 9562), so that they sort by time of creation. */
export const idSchema = z.uuid();
export const colorSchema = z.string().regex(/^#[0-9a-f]{6}$/i);
export const finite = z.number().finite();

/** A file's SHA-256, in lower-case hexadecimal. */
export const digestSchema = z.string().regex(/^[0-9a-f]{64}$/);

/** Where an annotation stands in an imported file, and its date there; undefined for our own. */
export const originSchema = z.object({
  /** The file; the document's own where it is not said. */
  source: digestSchema.optional(),
  object: z.int().nonnegative(),
  generation: z.int().nonnegative(),
  /** `modified` as imported: while it is unchanged, the file's own object is left alone. */
  modified: z.string(),
});

/** What every annotation has. */
export const placed = {
  id: idSchema,
  pageId: idSchema,
  /** Place in the painting order of the page: a fractional index, compared as a plain string. */
  order: z.string().min(1).max(200),
  opacity: z.number().min(0).max(1),
  author: z.string().max(200),
  created: z.iso.datetime(),
  modified: z.iso.datetime(),
  origin: originSchema.optional(),
  /** Annotations of one group are selected together. */
  group: idSchema.optional(),
  /** What is locked is not selected by drawing round it, and not erased. */
  locked: z.boolean().optional(),
};

/** What every annotation has that is of one colour. */
export const common = { ...placed, color: colorSchema };

/** An affine map that flattens nothing; see `Matrix`. */
export const matrixSchema = z
  .tuple([finite, finite, finite, finite, finite, finite])
  .refine(([a, b, c, d]) => Math.abs(a * d - b * c) > 1e-12, {
    error: 'a map that flattens the page cannot be taken back',
  });

/**
 * A quadrilateral on a line of text, in page space: top left, top right, bottom left, bottom right
 * as the text is read.
 */
export const quadSchema = z.tuple([finite, finite, finite, finite, finite, finite, finite, finite]);

export type Origin = z.infer<typeof originSchema>;
export type Quad = z.infer<typeof quadSchema>;
