import { z } from 'zod';
import { text } from '../bounds/index';
import {
  annotationSorts,
  eraserTargets,
  regionTakes,
  strokeStyleSchema,
  textStylesSchema,
} from '../document/index';

const colorSchema = z.string().regex(/^#[0-9a-f]{6}$/i);

/** Smallest and largest eraser, in points. */
export const eraserSizes = { least: 0.1, most: 50 } as const;

/** What a button of the pen does while it is held down on the page. */
export const penActions = ['eraser', 'lasso', 'pen', 'undo', 'none'] as const;

/** A ready instrument. Width in points. */
export const kitSlotSchema = strokeStyleSchema.extend({
  id: text(60).min(1),
  /** Given by its owner; empty for none. */
  name: text(40),
  color: colorSchema,
  width: z.number().positive().max(60),
  /** Whether its width is meant on the screen, where one millimetre is the same at any zoom, and not on the page. */
  onScreen: z.boolean().optional(),
  opacity: z.number().min(0.05).max(1),
  /** Highlighter: what a nearly straight stroke off the text becomes; a bar unless it says no. */
  straightens: z.boolean().optional(),
  /** It draws straight lines only. */
  straight: z.boolean().optional(),
  /** Held at the end of a stroke, it makes it the shape that was meant; unless it says no. */
  holdsToShape: z.boolean().optional(),
  /** Whether the shapes it makes are filled. */
  fillsShapes: z.boolean().optional(),
});

/** Size: the diameter of what it covers, in points. */
export const eraserSchema = z.object({
  by: z.enum(['stroke', 'area']),
  target: z.enum(eraserTargets),
  size: z.number().min(eraserSizes.least).max(eraserSizes.most),
  /** Whether its size is meant on the screen. */
  onScreen: z.boolean().optional(),
  /** Whether one use gives the pen back. */
  springsBack: z.boolean(),
});

export const penButtonsSchema = z.object({
  eraserEnd: z.enum(penActions),
  barrel: z.enum(penActions),
});

/** What a gesture of several fingers on the page does. */
export const touchActions = ['none', 'undo', 'redo', 'fit', 'pen', 'eraser'] as const;

/** Gestures of fingers that stay where they are; one finger's tap is the page's. */
export const touchGestures = [
  'oneDoubleTap',
  'twoTap',
  'twoDoubleTap',
  'twoHold',
  'threeTap',
  'threeDoubleTap',
  'threeHold',
  'fourTap',
] as const;

/** Where the hand may rest: an area of the desk as shares of the pages' width and height. */
export const restingAreaSchema = z.object({
  x: z.number().min(0).max(1),
  y: z.number().min(0).max(1),
  width: z.number().min(0.02).max(1),
  height: z.number().min(0.02).max(1),
});

/** How the hands are used. What a touch gesture does is nothing until it is said. */
export const handsSchema = z.object({
  writingHand: z.enum(['right', 'left']),
  touch: z.partialRecord(z.enum(touchGestures), z.enum(touchActions)),
  /** One finger draws where no pen is near; two always pan and zoom. */
  fingersDraw: z.boolean().optional(),
  /** Left out where there is none. */
  restingArea: restingAreaSchema.optional(),
});

/** How the lasso is drawn, and what it takes. */
export const lassoSchema = z.object({
  drawn: z.enum(['freehand', 'rectangle']),
  takes: z.enum(regionTakes),
  sorts: z.array(z.enum(annotationSorts)),
});

/** How snips are drawn, and whether what is written on the page comes along. */
export const snipSettingsSchema = z.object({
  drawn: z.enum(['freehand', 'rectangle']),
  annotations: z.boolean(),
  /** Whether one snip gives the pen back. */
  springsBack: z.boolean(),
});

/** Pen gestures that act. */
export const shorthandSchema = z.object({
  scratchOut: z.boolean(),
  ring: z.boolean(),
  box: z.boolean(),
});

/** Settings of a tool, which itself knows their form: a kit keeps also those of tools that are not known here. */
const settingsOfToolSchema = z
  .record(z.string().min(1).max(60), z.union([z.string().max(200), z.number(), z.boolean()]))
  .refine((settings) => Object.keys(settings).length <= 60);

/** What a person has at hand; also the form of kit files. */
export const kitSchema = z.object({
  version: z.literal(1),
  slots: z.array(kitSlotSchema).min(1).max(60),
  eraser: eraserSchema,
  buttons: penButtonsSchema,
  /** Colours of one's own that were used last, the latest first. */
  recentColors: z.array(colorSchema).max(12).optional(),
  /** Left out until it has been set up. */
  hands: handsSchema.optional(),
  /** All off until it is said. */
  shorthand: shorthandSchema.optional(),
  /** Freehand, mostly inside, of every sort until it is said. */
  lasso: lassoSchema.optional(),
  /** Rectangles, with what is written, until it is said. */
  snip: snipSettingsSchema.optional(),
  /** Usual ones until some were saved. */
  text: textStylesSchema.optional(),
  /** Of further tools, by their ids. */
  tools: z
    .record(z.string().min(1).max(60), settingsOfToolSchema)
    .refine((tools) => Object.keys(tools).length <= 100)
    .optional(),
});

/** The kept kit, or null before one has been changed. */
export const keptKitSchema = z.object({ kit: kitSchema.nullable() });

export type KitSlot = z.infer<typeof kitSlotSchema>;
export type Eraser = z.infer<typeof eraserSchema>;
export type PenAction = (typeof penActions)[number];
export type PenButtons = z.infer<typeof penButtonsSchema>;
export type Kit = z.infer<typeof kitSchema>;
export type SettingsOfTool = z.infer<typeof settingsOfToolSchema>;
export type TouchAction = (typeof touchActions)[number];
export type TouchGesture = (typeof touchGestures)[number];
export type RestingArea = z.infer<typeof restingAreaSchema>;
export type Lasso = z.infer<typeof lassoSchema>;
export type SnipSettings = z.infer<typeof snipSettingsSchema>;
export type Shorthand = z.infer<typeof shorthandSchema>;
export type Hands = z.infer<typeof handsSchema>;
