import type { Annotation } from '@stylet/core/document';
import { simplify, type Box } from '@stylet/core/geometry';
import { polygonBounds, type Piece, type Polygon } from '@stylet/core/ink';
import { paint, type PaintCommand } from '@stylet/core/paint';

/** A piece with its path, which canvases fill faster than they fill points. */
export interface DrawnPiece extends Piece {
  readonly path: Path2D;
}

export interface DrawnCommand extends PaintCommand {
  readonly pieces: readonly DrawnPiece[];
  readonly bounds: Box | undefined;
}

/** What an annotation looks like, ready to be drawn. */
interface Drawing {
  readonly polygons: readonly Polygon[];
  /** What it covers, in page space; undefined for those drawn by the page itself. */
  readonly bounds: Box | undefined;
  readonly whole: readonly PaintCommand[];
  /** Ready paths by how closely they are looked at. */
  readonly ready: Map<number, readonly DrawnCommand[]>;
}

/** What may be spared of an outline, in pixels: less than can be told apart. */
const SPARE = 0.125;

/** Annotations are immutable, so what they look like is worked out once. */
const drawings = new WeakMap<Annotation, Drawing>();

function drawingOf(annotation: Annotation): Drawing {
  let drawing = drawings.get(annotation);
  if (!drawing) {
    const whole = paint(annotation, 'whole');
    const polygons = whole.flatMap(({ pieces }) => pieces.map(({ polygon }) => polygon));
    drawing = { polygons, bounds: polygonBounds(polygons), whole, ready: new Map() };
    drawings.set(annotation, drawing);
  }
  return drawing;
}

/**
 * How an annotation is drawn at a scale in pixels a point: in as few paths as there can be, of no
 * more points than show.
 */
export function commandsOf(annotation: Annotation, scale: number): readonly DrawnCommand[] {
  const { ready, whole } = drawingOf(annotation);
  // One set of paths serves up to a fifth more of scale.
  const step = Math.ceil(4 * Math.log2(scale)) / 4;
  let commands = ready.get(step);
  if (!commands) {
    commands = whole.map((command) => drawnCommand(command, SPARE / 2 ** step));
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

/** What an annotation covers, in page space; undefined for those drawn by the page itself. */
export const boundsOfAnnotation = (annotation: Annotation): Box | undefined =>
  drawingOf(annotation).bounds;

function drawnCommand(command: PaintCommand, spare: number): DrawnCommand {
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
