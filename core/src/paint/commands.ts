import {
  blendOf,
  boxPolygon,
  cropOutline,
  linkAreas,
  outlineStyle,
  quadPolygon,
  shapeStrokes,
  type Annotation,
  type Blend,
  type Ink,
  type Markup,
  type Picture,
  type Quad,
  type ShapeAnnotation,
} from '../document/index';
import type { Matrix } from '../geometry/index';
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

/** Paint pieces, opaque and one over the other, and lay the whole of it on the page. */
export interface FillCommand {
  readonly pieces: readonly Piece[];
  readonly color: string;
  readonly opacity: number;
  /** `multiply`: it lies under the words (ISO 32000-1, 11.3.5). */
  readonly blend: Blend;
}

/** Lay a picture on the page: what of its unit square lies within an outline, mapped to page space. */
export interface PictureCommand {
  readonly picture: string;
  readonly medium: Picture['medium'];
  readonly matrix: Matrix;
  /** Undefined for the whole of it. */
  readonly crop: Polygon | undefined;
  readonly opacity: number;
}

export type PaintCommand = FillCommand | PictureCommand;

export const isFill = (command: PaintCommand): command is FillCommand => 'pieces' in command;

/** What a command covers, in page space. */
export const coveredBy = (command: PaintCommand): readonly Polygon[] =>
  isFill(command)
    ? command.pieces.map(({ polygon }) => polygon)
    : [mapPolygon((command.crop ?? UNIT_SQUARE).slice(), command.matrix)];

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
    // Links show nothing of their own.
    case 'link':
    case 'foreign':
      return [];
  }
}

function paintPicture(picture: Picture): PictureCommand {
  const { digest, medium, transform, crop, opacity } = picture;
  return {
    picture: digest,
    medium,
    matrix: transform,
    crop: crop ? cropOutline(picture) : undefined,
    opacity,
  };
}

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
