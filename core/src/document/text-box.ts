import { z } from 'zod';
import { transform, type Point } from '../geometry/index';
import type { Polygon } from '../ink/index';
import { baseLookSchema, bodySchema, plainText, type Body } from '../typed/index';
import { colorSchema, common, matrixSchema } from './common-fields';

/** The largest side of a box of text, in points. */
const LARGEST = 20_000;
const side = z.number().min(0).max(LARGEST);

/** What a box is besides its words; lengths in points. */
export const frameSchema = z.object({
  padding: z.number().min(0).max(200),
  background: colorSchema.optional(),
  border: z.object({ color: colorSchema, width: z.number().positive().max(50) }).optional(),
});

/**
 * Typed text in a box. Its colour is that of the words that have none of their own. `size` is that of the whole
 * box, before `transform` maps it, its origin at the top left, to page space.
 */
export const textBoxSchema = z.object({
  ...common,
  kind: z.literal('textBox'),
  look: baseLookSchema.omit({ color: true }),
  paragraphs: bodySchema.shape.paragraphs,
  frame: frameSchema,
  size: z.object({ width: side, height: side }),
  /** It keeps the width it was given, and its lines end there; else it is as wide as its text. */
  keepsWidth: z.boolean().optional(),
  transform: matrixSchema,
});

export type TextBox = z.infer<typeof textBoxSchema>;
export type Frame = z.infer<typeof frameSchema>;

const bodies = new WeakMap<TextBox['paragraphs'], { key: string; body: Body }>();

/** The words of a box with their looks: the same object for as long as they are the same. */
export function bodyOfBox({
  look,
  color,
  paragraphs,
}: Pick<TextBox, 'look' | 'color' | 'paragraphs'>): Body {
  const key = `${color} ${JSON.stringify(look)}`;
  const known = bodies.get(paragraphs);
  if (known?.key === key) return known.body;
  const body = { look: { ...look, color }, paragraphs };
  bodies.set(paragraphs, { key, body });
  return body;
}

/** How wide the lines of a box are at the most, in points; undefined where they end only with their paragraphs. */
export const roomInBox = ({
  keepsWidth,
  size: { width },
  frame,
}: Pick<TextBox, 'keepsWidth' | 'size' | 'frame'>): number | undefined =>
  keepsWidth ? Math.max(1, width - 2 * frame.padding) : undefined;

/** Its corners in page space: top left, top right, bottom right, bottom left as it is read. */
export function cornersOfBox({
  size: { width, height },
  transform: map,
}: Pick<TextBox, 'size' | 'transform'>): Point[] {
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  return corners.map(([x, y]) => transform(map, { x, y }));
}

/** What it covers, in page space. */
export const boxOutline = (box: Pick<TextBox, 'size' | 'transform'>): Polygon =>
  Float64Array.from(cornersOfBox(box).flatMap(({ x, y }) => [x, y]));

/** The words of a box, a line for each paragraph. */
export const wordsOfBox = (box: Pick<TextBox, 'paragraphs'>): string => plainText(box);
