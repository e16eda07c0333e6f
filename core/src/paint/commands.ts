import {
  blendOf,
  boxOutline,
  boxPolygon,
  cropOutline,
  linkAreas,
  outlineStyle,
  quadPolygon,
  shapeStrokes,
  type Annotation,
  type Ink,
  type Markup,
  type Picture,
  type Quad,
  type ShapeAnnotation,
  type TextBox,
} from '../document/index';
import { compose, type Matrix } from '../geometry/index';
import {
  mapPolygon,
  samplesFromBase64,
  samplesInFull,
  strokeOutline,
  strokePieces,
  type Piece,
  type Polygon,
} from '../ink/index';
import { shapeArea } from '../shapes/index';
import type { FillCommand } from './fill-command';
import { paintNoteMark } from './note-mark';

export type { FillCommand } from './fill-command';

/** Lay a picture on the page: what of its unit square lies within an outline, mapped to page space. */
export interface PictureCommand {
  readonly picture: string;
  readonly medium: Picture['medium'];
  readonly matrix: Matrix;
  /** Undefined for the whole of it. */
  readonly crop: Polygon | undefined;
  /** The colour of all of it, where that is not its own. */
  readonly tint: string | undefined;
  readonly opacity: number;
}

/** Lay typed text on the page, set as `bodyOfBox` and `roomInBox` say; `matrix` from the text's top left to page space. */
export interface TextCommand {
  readonly box: TextBox;
  readonly matrix: Matrix;
  readonly opacity: number;
}

export type PaintCommand = FillCommand | PictureCommand | TextCommand;

export const isFill = (command: PaintCommand): command is FillCommand => 'pieces' in command;
export const isText = (command: PaintCommand): command is TextCommand => 'box' in command;

/** What a command covers, in page space. */
export function coveredBy(command: PaintCommand): readonly Polygon[] {
  if (isFill(command)) return command.pieces.map(({ polygon }) => polygon);
  if (isText(command)) return [boxOutline(command.box)];
  return [mapPolygon((command.crop ?? UNIT_SQUARE).slice(), command.matrix)];
}

/** What an annotation covers of its page, in page space: also links, which show nothing, and what the page draws. */
export function areasOf(
  annotation: Annotation,
  commands: readonly PaintCommand[] = paint(annotation, 'whole'),
): readonly Polygon[] {
  if (annotation.kind === 'link') return linkAreas(annotation);
  if (annotation.kind === 'foreign') return [boxPolygon(annotation.box)];
  return commands.flatMap(coveredBy);
}

const UNIT_SQUARE = cropOutline({});

/**
 * What an annotation looks like. Foreign annotations are drawn from their own appearance: none.
 * Ink comes in the pieces it was drawn in, for screens, or `whole`, which is shorter to write down.
 */
export function paint(
  annotation: Ink | ShapeAnnotation | Markup,
  ink?: 'pieces' | 'whole',
): FillCommand[];
export function paint(annotation: Annotation, ink?: 'pieces' | 'whole'): PaintCommand[];
export function paint(annotation: Annotation, ink: 'pieces' | 'whole' = 'pieces'): PaintCommand[] {
  switch (annotation.kind) {
    case 'ink':
      return paintInk(annotation, ink === 'whole' ? strokeOutline : strokePieces);
    case 'shape':
      return paintShape(annotation, ink === 'whole' ? strokeOutline : strokePieces);
    case 'highlight':
    case 'underline':
    case 'strikeout':
      return [paintMarkup(annotation)];
    case 'picture':
      return [paintPicture(annotation)];
    case 'textBox':
      return paintTextBox(annotation);
    case 'note':
      return paintNoteMark(annotation);
    // Links show nothing of their own; replies show beside the page.
    case 'link':
    case 'reply':
    case 'foreign':
      return [];
  }
}

function paintPicture(picture: Picture): PictureCommand {
  const { digest, medium, transform, crop, tint, opacity } = picture;
  return {
    picture: digest,
    medium,
    matrix: transform,
    crop: crop ? cropOutline(picture) : undefined,
    tint,
    opacity,
  };
}

/** What lies behind the words, the border round it, and the words. */
function paintTextBox(box: TextBox): PaintCommand[] {
  const { frame, transform, opacity } = box;
  const { width, height } = box.size;
  const { padding, background, border } = frame;
  const fill = (color: string, outlines: readonly (readonly number[])[]): FillCommand => ({
    pieces: outlines.map((outline) => ({
      polygon: mapPolygon(Float64Array.from(outline), transform),
      grain: 0,
    })),
    color,
    opacity,
    blend: 'normal',
  });
  const behind = background ? [fill(background, [rectangle(0, 0, width, height)])] : [];
  const round = border
    ? [
        fill(
          border.color,
          sidesWithin(width, height, Math.min(border.width, width / 2, height / 2)),
        ),
      ]
    : [];
  const matrix = compose([1, 0, 0, 1, padding, padding], transform);
  return [...behind, ...round, { box, matrix, opacity }];
}

const rectangle = (x0: number, y0: number, x1: number, y1: number): number[] => [
  ...[x0, y0, x1, y0],
  ...[x1, y1, x0, y1],
];

/** The four sides of a border of a width, within a box; they do not overlap. */
const sidesWithin = (width: number, height: number, border: number): number[][] => [
  rectangle(0, 0, width, border),
  rectangle(0, height - border, width, height),
  rectangle(0, border, border, height - border),
  rectangle(width - border, border, width, height - border),
];

function paintInk(ink: Ink, pieces: typeof strokePieces): FillCommand[] {
  const { color, opacity } = ink;
  const blend = blendOf(ink);
  const drawn = pieces(ink, samplesFromBase64(ink.samples));
  const all = ink.transform ? drawn.map((piece) => mapped(piece, ink.transform!)) : drawn;
  // Passes of a stroke that darkens itself are laid on the page one after the other.
  const groups = ink.darkens ? all.map((piece) => [piece]) : [all];
  return groups.map((group) => ({ pieces: group, color, opacity, blend }));
}

function mapped(piece: Piece, matrix: Matrix): Piece {
  const polygon = piece.polygon.slice();
  mapPolygon(polygon, matrix);
  return { ...piece, polygon };
}

/** The area first, if it is filled, and the outline on it. */
function paintShape(shape: ShapeAnnotation, pieces: typeof strokePieces): FillCommand[] {
  const { color, opacity } = shape;
  const blend = blendOf(shape);
  const style = outlineStyle(shape);
  const outline = shapeStrokes(shape, shape.width).flatMap((stroke) =>
    pieces(style, samplesInFull(stroke)),
  );
  const area = shape.fill > 0 ? shapeArea(shape) : undefined;
  return [
    ...(area
      ? [{ pieces: [{ polygon: area, grain: 0 }], color, opacity: opacity * shape.fill, blend }]
      : []),
    { pieces: outline, color, opacity, blend },
  ];
}

function paintMarkup(markup: Markup): FillCommand {
  const polygons = markup.quads.map((quad) =>
    markup.kind === 'highlight' ? quadPolygon(quad) : lineAcross(quad, LINE_AT[markup.kind]),
  );
  return {
    pieces: polygons.map((polygon) => ({ polygon, grain: 0 })),
    color: markup.color,
    opacity: markup.opacity,
    blend: markup.kind === 'highlight' ? 'multiply' : 'normal',
  };
}

/** Share of a line's height, from the top, at which the line is drawn. Common practice, no source. */
const LINE_AT = { underline: 0.94, strikeout: 0.58 } as const;
const LINE_THICKNESS = 0.07;

function lineAcross(quad: Quad, share: number): Polygon {
  const [tlx, tly, trx, try_, blx, bly, brx, bry] = quad;
  const at = (k: number): number[] => [
    tlx + (blx - tlx) * k,
    tly + (bly - tly) * k,
    trx + (brx - trx) * k,
    try_ + (bry - try_) * k,
  ];
  const [ax, ay, bx, by] = at(share - LINE_THICKNESS / 2);
  const [cx, cy, dx, dy] = at(share + LINE_THICKNESS / 2);
  return Float64Array.of(ax, ay, bx, by, dx, dy, cx, cy);
}
