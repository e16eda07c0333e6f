import { z } from 'zod';
import { count, instant, text } from '../bounds/index';
import { idSchema } from './common-fields';
import {
  annotationSchema,
  inkSchema,
  markupSchema,
  shapeSchema,
  strokeStyleSchema,
} from './annotation';
import { landmarkFieldsSchema, landmarkSchema } from './landmark';
import { linkSchema } from './link';
import { noteSchema } from './note';
import { documentPageSchema, pageFieldsSchema } from './page';
import { pictureSchema } from './picture';
import { textBoxSchema } from './text-box';

const { instrument, width, smoothing, ...optionalStyle } = strokeStyleSchema.shape;
const optional = {
  ...optionalStyle,
  ...inkSchema.pick({ group: true, locked: true, transform: true }).shape,
  ...pictureSchema.pick({ crop: true, inFront: true, source: true, tint: true }).shape,
  ...textBoxSchema.pick({ keepsWidth: true }).shape,
};

/** The fields of an annotation that can be changed in place; those it may lack go when they are null. */
export const annotationFieldsSchema = inkSchema
  .pick({ color: true, opacity: true, order: true, modified: true })
  .extend({ instrument, width, smoothing })
  .extend(nullable(optional))
  .extend(markupSchema.pick({ quads: true, contents: true }).shape)
  .extend(linkSchema.pick({ target: true }).shape)
  .extend(noteSchema.pick({ at: true }).shape)
  .extend(textBoxSchema.pick({ look: true, paragraphs: true, frame: true, size: true }).shape)
  .extend(shapeSchema.pick({ form: true, points: true, bends: true, fill: true }).shape)
  .partial();

/** Each field of a shape, or null for none. */
function nullable<S extends z.ZodRawShape>(shape: S): { [K in keyof S]: z.ZodNullable<S[K]> } {
  const entries = Object.entries(shape).map(([key, schema]) => [
    key,
    (schema as z.ZodType).nullable(),
  ]);
  return Object.fromEntries(entries) as { [K in keyof S]: z.ZodNullable<S[K]> };
}

const effectSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('annotation.add'), annotation: annotationSchema }),
  z.object({
    type: z.literal('annotation.change'),
    pageId: idSchema,
    annotationId: idSchema,
    fields: annotationFieldsSchema,
    /** The words that were gone on from: what others make of them meanwhile stays. */
    was: textBoxSchema.pick({ paragraphs: true }).optional(),
  }),
  z.object({ type: z.literal('annotation.remove'), pageId: idSchema, annotationId: idSchema }),
  z.object({ type: z.literal('landmark.add'), landmark: landmarkSchema }),
  z.object({
    type: z.literal('landmark.change'),
    landmarkId: idSchema,
    fields: landmarkFieldsSchema,
  }),
  z.object({ type: z.literal('landmark.remove'), landmarkId: idSchema }),
  z.object({ type: z.literal('page.add'), page: documentPageSchema }),
  z.object({ type: z.literal('page.change'), pageId: idSchema, fields: pageFieldsSchema }),
  z.object({ type: z.literal('page.remove'), pageId: idSchema }),
  z.object({ type: z.literal('document.rename'), title: text(300).trim().min(1) }),
]);

/** One change to one document. `baseRevision` is the revision its author saw. */
export const operationSchema = z.object({
  id: idSchema,
  documentId: idSchema,
  author: text(200),
  at: instant,
  baseRevision: count,
  effect: effectSchema,
});

export type AnnotationFields = z.infer<typeof annotationFieldsSchema>;
/** What an operation does. */
export type Effect = z.infer<typeof effectSchema>;
export type Operation = z.infer<typeof operationSchema>;
