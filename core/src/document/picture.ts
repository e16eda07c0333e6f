import { z } from 'zod';
import { coordinate, text } from '../bounds/index';
import { mapPolygon, type Polygon } from '../ink/index';
import { colorSchema, digestSchema, idSchema, matrixSchema, placed } from './common-fields';

/** Where a picture was taken from: a place in a document (page space), or an address. */
export const pictureSourceSchema = z.union([
  z.object({
    documentId: idSchema,
    pageId: idSchema,
    title: text(300),
    box: z.object({ x0: coordinate, y0: coordinate, x1: coordinate, y1: coordinate }),
  }),
  z.object({ address: z.url({ protocol: /^https?$/ }).max(2000) }),
]);

/**
 * A picture: its file by digest, whether that holds pixels or is drawn by lines and letters, and its
 * size as it is meant to be seen (in pixels, or in points where it is drawn). `transform` maps the unit square, origin at the picture's top left, to page space.
 */
export const pictureSchema = z.object({
  ...placed,
  kind: z.literal('picture'),
  digest: digestSchema,
  medium: z.enum(['pixels', 'lines']),
  width: z.number().positive().max(1e6),
  height: z.number().positive().max(1e6),
  transform: matrixSchema,
  /** The outline of what shows of it, in the unit square; the whole of it where it is left out. */
  crop: z
    .array(z.object({ x: coordinate, y: coordinate }))
    .min(3)
    .max(2000)
    .optional(),
  /** The one colour it is drawn in, where its own are not meant. */
  tint: colorSchema.optional(),
  /** It was placed as a stamp, of which `contents` is the name. */
  isStamp: z.boolean().optional(),
  /** It lies over what is written, instead of under it. */
  inFront: z.boolean().optional(),
  /** What it shows, in words: mostly its file's name. */
  contents: text(100_000),
  source: pictureSourceSchema.optional(),
});

/** A picture's file: what tells it from others, and what is known of it. */
export const pictureFactsSchema = pictureSchema.pick({
  digest: true,
  medium: true,
  width: true,
  height: true,
});

export type Picture = z.infer<typeof pictureSchema>;
export type PictureFacts = z.infer<typeof pictureFactsSchema>;
export type PictureSource = z.infer<typeof pictureSourceSchema>;

/** What of a picture's unit square shows. */
export function cropOutline({ crop }: Pick<Picture, 'crop'>): Polygon {
  return crop
    ? Float64Array.from(crop.flatMap(({ x, y }) => [x, y]))
    : Float64Array.of(0, 0, 1, 0, 1, 1, 0, 1);
}

/** What of a picture shows, in page space. */
export const pictureOutline = (picture: Pick<Picture, 'crop' | 'transform'>): Polygon =>
  mapPolygon(cropOutline(picture), picture.transform);
