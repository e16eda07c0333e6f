import { z } from 'zod';
import { count, text } from '../bounds/index';
import type { Polygon } from '../ink/index';
import { addressSchema } from '../typed/index';
import { idSchema, placed, quadSchema, type Quad } from './common-fields';
import { placeSchema } from './landmark';

/** Where a link leads: a place in its document, an address, another document; nowhere, if it is gone. */
export const linkTargetSchema = z.union([
  z.object({ place: placeSchema }),
  z.object({ address: addressSchema }),
  z.object({
    documentId: idSchema,
    title: text(300),
    /** Its page, counted from 0. */
    pageIndex: count,
  }),
  z.object({ nowhere: z.literal(true) }),
]);

/** An area of a page that leads somewhere; corners as those of marks on text. */
export const linkSchema = z.object({
  ...placed,
  kind: z.literal('link'),
  quads: z.array(quadSchema).min(1).max(200),
  target: linkTargetSchema,
  /** The words it lies on, or what it is called. */
  contents: text(100_000),
});

export type Link = z.infer<typeof linkSchema>;
export type LinkTarget = z.infer<typeof linkTargetSchema>;

/** A quadrilateral as a polygon: its corners the way round. */
export const quadPolygon = ([tlx, tly, trx, try_, blx, bly, brx, bry]: Quad): Polygon =>
  Float64Array.of(tlx, tly, trx, try_, brx, bry, blx, bly);

/** The areas of a link, as polygons of page space. */
export const linkAreas = ({ quads }: Pick<Link, 'quads'>): Polygon[] => quads.map(quadPolygon);
