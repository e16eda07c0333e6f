import { z } from 'zod';
import { coordinate, text } from '../bounds/index';
import { instruments, strokeEnds } from '../ink/index';
import { pointCounts, shapeForms } from '../shapes/index';
import { common, matrixSchema, originSchema, quadSchema } from './common-fields';
import { linkSchema } from './link';
import { noteSchema, replySchema } from './note';
import { pictureSchema } from './picture';
import { textBoxSchema } from './text-box';

/** How an annotation's colour mixes with what lies under it (ISO 32000-1, 11.3.5). */
export const blends = ['normal', 'multiply'] as const;
export type Blend = (typeof blends)[number];

/** What a stroke looks like, for annotations and for slots: see `StrokeStyle`. */
export const strokeStyleSchema = z.object({
  instrument: z.enum(instruments),
  width: z.number().positive().max(200),
  smoothing: z.number().min(0).max(1),
  sensitivity: z.number().min(0).max(1).optional(),
  angle: z.number().min(0).max(180).optional(),
  fills: z.boolean().optional(),
  end: z.enum(strokeEnds).optional(),
  freeform: z.boolean().optional(),
  darkens: z.boolean().optional(),
  /** By its instrument when it is not said: highlighter and wash multiply. */
  blend: z.enum(blends).optional(),
});

/**
 * One stroke. Width in points; samples as `encodeSamples` gives them, in base 64. `transform` maps what
 * they draw to where it is now: it was moved, turned or enlarged since.
 */
export const inkSchema = z.object({
  ...common,
  ...strokeStyleSchema.shape,
  kind: z.literal('ink'),
  samples: z.base64(),
  transform: matrixSchema.optional(),
  /** What somebody remarked on it in another program. */
  contents: text(100_000).optional(),
});

/**
 * A shape drawn along its outline by an instrument that is pressed half; see `Shape`. `fill`: the
 * opacity of its colour over the area it goes round, 0 for none. `bends` may be fewer than sides.
 */
export const shapeSchema = z.object({
  ...common,
  ...strokeStyleSchema.shape,
  kind: z.literal('shape'),
  form: z.enum(shapeForms),
  points: z
    .array(z.object({ x: coordinate, y: coordinate }))
    .min(2)
    .max(60),
  bends: z.array(coordinate).max(60),
  fill: z.number().min(0).max(1),
  contents: text(100_000).optional(),
});

/** A mark on text; `contents` are the words under it. */
export const markupSchema = z.object({
  ...common,
  kind: z.enum(['highlight', 'underline', 'strikeout']),
  quads: z.array(quadSchema).min(1).max(2000),
  contents: text(100_000),
  /** What somebody remarked on it in another program, in place of the words under it. */
  remark: text(100_000).optional(),
});

const strokes = {
  kind: true,
  color: true,
  instrument: true,
  width: true,
  smoothing: true,
} as const;

/** What an annotation of another program would be here: the fields of its kind, and its colour. */
export const ownFormSchema = z.discriminatedUnion('kind', [
  inkSchema.pick({ ...strokes, samples: true }),
  shapeSchema
    .pick({ ...strokes, form: true, points: true, bends: true, fill: true })
    .refine(hasItsPoints, { error: 'a shape needs the points of its form' }),
  markupSchema.pick({ kind: true, color: true, quads: true }),
  textBoxSchema.pick({
    kind: true,
    color: true,
    look: true,
    paragraphs: true,
    frame: true,
    size: true,
    keepsWidth: true,
    transform: true,
  }),
]);

/** As many annotations one of another program can become: each stroke of its ink is one. */
export const MOST_FORMS = 200;

/** An annotation another program put into the file: drawn from its own appearance, removable. */
export const foreignSchema = z.object({
  ...common,
  kind: z.literal('foreign'),
  subtype: text(100),
  box: z.object({ x0: coordinate, y0: coordinate, x1: coordinate, y1: coordinate }),
  contents: text(100_000),
  origin: originSchema,
  /** What it becomes here once somebody wants to change it; left out where there is nothing like it. */
  forms: z.array(ownFormSchema).min(1).max(MOST_FORMS).optional(),
});

export const annotationSchema = z.discriminatedUnion('kind', [
  inkSchema,
  shapeSchema.refine(hasItsPoints, { error: 'a shape needs the points of its form' }),
  markupSchema,
  pictureSchema,
  textBoxSchema,
  linkSchema,
  noteSchema,
  replySchema,
  foreignSchema,
]);

function hasItsPoints({
  form,
  points,
}: Pick<z.infer<typeof shapeSchema>, 'form' | 'points'>): boolean {
  const [least, most] = pointCounts[form];
  return points.length >= least && points.length <= most;
}

export type InkStyle = z.infer<typeof strokeStyleSchema>;
export type Ink = z.infer<typeof inkSchema>;
export type ShapeAnnotation = z.infer<typeof shapeSchema>;
export type Markup = z.infer<typeof markupSchema>;
export type OwnForm = z.infer<typeof ownFormSchema>;
export type Foreign = z.infer<typeof foreignSchema>;
export type Annotation = z.infer<typeof annotationSchema>;

/** Whether an annotation is a mark on text. */
export const isMarkup = (annotation: Annotation): annotation is Markup =>
  annotation.kind === 'highlight' ||
  annotation.kind === 'underline' ||
  annotation.kind === 'strikeout';
