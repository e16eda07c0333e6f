import { scaleOf, type Annotation, type Ink } from '@stylet/core/document';
import { simplify, type Box, type Matrix } from '@stylet/core/geometry';
import { mapPolygon, polygonBounds, type Piece, type Polygon } from '@stylet/core/ink';
import {
  areasOf,
  isFill,
  isText,
  paint,
  type FillCommand,
  type PaintCommand,
  type PictureCommand,
  type TextCommand,
} from '@stylet/core/paint';

/** A piece with its path, which canvases fill faster than they fill points. */
export interface DrawnPiece extends Piece {
  readonly path: Path2D;
}

export interface DrawnFill extends FillCommand {
  readonly pieces: readonly DrawnPiece[];
  readonly bounds: Box | undefined;
  /** Maps the pieces to page space, where they are not in it already. */
  readonly matrix?: Matrix;
}

/** A picture with the path of its crop, in its unit square. */
export interface DrawnPicture extends PictureCommand {
  readonly path: Path2D | undefined;
}

export type DrawnText = TextCommand;
export type DrawnCommand = DrawnFill | DrawnPicture | DrawnText;

/** What an annotation looks like, ready to be drawn. */
interface Drawing {
  readonly polygons: readonly Polygon[];
  /** What it covers, in page space; undefined for those drawn by the page itself. */
  readonly bounds: Box | undefined;
  readonly whole: readonly PaintCommand[];
  /** Ready paths by how closely they are looked at. */
  readonly ready: Map<number, readonly DrawnCommand[]>;
  /** What was drawn before it was moved, turned or enlarged, and the map that took it here. */
  readonly base?: { readonly ink: Ink; readonly map: Matrix };
}

/** What may be spared of an outline, in pixels: less than can be told apart. */
const SPARE = 0.125;

/** Annotations are immutable, so what they look like is worked out once. */
const drawings = new WeakMap<Annotation, Drawing>();
/** Ink without the map that took it where it is, by its id: that map is all that changes in moving it. */
const bases = new Map<string, WeakRef<Ink>>();

function drawingOf(annotation: Annotation): Drawing {
  let drawing = drawings.get(annotation);
  if (!drawing) {
    const base = baseOf(annotation);
    drawing = base ? movedDrawing(base.ink, base.map) : newDrawing(annotation);
    drawings.set(annotation, drawing);
  }
  return drawing;
}

function newDrawing(annotation: Annotation): Drawing {
  const whole = paint(annotation, 'whole');
  const polygons = areasOf(annotation, whole);
  return { polygons, bounds: polygonBounds(polygons), whole, ready: new Map() };
}

function movedDrawing(ink: Ink, map: Matrix): Drawing {
  const polygons = drawingOf(ink).polygons.map((polygon) => mapPolygon(polygon.slice(), map));
  return {
    polygons,
    bounds: polygonBounds(polygons),
    whole: drawingOf(ink).whole,
    ready: new Map(),
    base: { ink, map },
  };
}

/** The ink an annotation was before it was moved, drawn already or to be drawn. */
function baseOf(annotation: Annotation): Drawing['base'] | undefined {
  // Grain lies in the paper: it does not move with the ink.
  if (annotation.kind !== 'ink' || annotation.instrument === 'pencil') return undefined;
  const { transform: map } = annotation;
  const known = bases.get(annotation.id)?.deref();
  const isSame = known !== undefined && looksAlike(known, annotation);
  if (!map) {
    if (!isSame) bases.set(annotation.id, new WeakRef(annotation));
    return undefined;
  }
  if (isSame) return { ink: known, map };
  const { transform: _map, ...ink } = annotation;
  bases.set(annotation.id, new WeakRef(ink));
  return { ink, map };
}

const LOOK = [
  'samples',
  'instrument',
  'width',
  'smoothing',
  'sensitivity',
  'angle',
  'fills',
  'end',
  'freeform',
  'darkens',
  'color',
  'opacity',
  'blend',
] as const;
const looksAlike = (a: Ink, b: Ink): boolean => LOOK.every((key) => a[key] === b[key]);

/**
 * How an annotation is drawn at a scale in pixels a point: in as few paths as there can be, of no
 * more points than show.
 */
export function commandsOf(annotation: Annotation, scale: number): readonly DrawnCommand[] {
  const { ready, whole, base, bounds } = drawingOf(annotation);
  // One set of paths serves up to a fifth more of scale.
  const step = Math.ceil(4 * Math.log2(scale)) / 4;
  let commands = ready.get(step);
  if (!commands) {
    commands = base
      ? commandsOf(base.ink, scale * scaleOf(base.map)).map((command): DrawnCommand =>
          'pieces' in command ? { ...command, matrix: base.map, bounds } : command,
        )
      : whole.map((command) => drawnCommand(command, SPARE / 2 ** step));
    ready.set(step, commands);
  }
  return commands;
}

/** How an annotation is drawn in the pieces it was written in, pixel by pixel as it was shown. */
export const piecewise = (annotation: Annotation): readonly DrawnCommand[] =>
  paint(annotation).map((command) => drawnCommand(command, 0));

/** The polygons an annotation fills, in page space. */
export const polygonsOf = (annotation: Annotation): readonly Polygon[] =>
  drawingOf(annotation).polygons;

/** The box of what an annotation covers, in page space; undefined where that is nothing. */
export const boundsOfAnnotation = (annotation: Annotation): Box | undefined =>
  drawingOf(annotation).bounds;

function drawnCommand(command: PaintCommand, spare: number): DrawnCommand {
  if (isText(command)) return command;
  if (!isFill(command))
    return { ...command, path: command.crop ? pathOf(command.crop) : undefined };
  return {
    ...command,
    pieces: command.pieces.map((piece) => ({
      ...piece,
      path: pathOf(spare > 0 ? simplify(piece.polygon, spare) : piece.polygon),
    })),
    bounds: polygonBounds(command.pieces.map(({ polygon }) => polygon)),
  };
}

function pathOf(polygon: ArrayLike<number>): Path2D {
  const path = new Path2D();
  path.moveTo(polygon[0], polygon[1]);
  for (let i = 2; i < polygon.length; i += 2) path.lineTo(polygon[i], polygon[i + 1]);
  path.closePath();
  return path;
}
