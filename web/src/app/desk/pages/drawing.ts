import type { Annotation } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
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
export interface Drawing {
  readonly commands: readonly DrawnCommand[];
  readonly polygons: readonly Polygon[];
  /** What it covers, in page space; undefined for those drawn by the page itself. */
  readonly bounds: Box | undefined;
}

/** Annotations are immutable, so what they look like is worked out once. */
const drawings = new WeakMap<Annotation, Drawing>();

export function drawingOf(annotation: Annotation): Drawing {
  let drawing = drawings.get(annotation);
  if (!drawing) {
    const commands = paint(annotation).map(drawnCommand);
    const polygons = commands.flatMap(({ pieces }) => pieces.map(({ polygon }) => polygon));
    drawing = { commands, polygons, bounds: polygonBounds(polygons) };
    drawings.set(annotation, drawing);
  }
  return drawing;
}

/** The polygons an annotation fills, in page space. */
export const polygonsOf = (annotation: Annotation): readonly Polygon[] =>
  drawingOf(annotation).polygons;

/** What an annotation covers, in page space; undefined for those drawn by the page itself. */
export const boundsOfAnnotation = (annotation: Annotation): Box | undefined =>
  drawingOf(annotation).bounds;

function drawnCommand(command: PaintCommand): DrawnCommand {
  return {
    ...command,
    pieces: command.pieces.map((piece) => ({ ...piece, path: pathOf(piece.polygon) })),
    bounds: polygonBounds(command.pieces.map(({ polygon }) => polygon)),
  };
}

function pathOf(polygon: Polygon): Path2D {
  const path = new Path2D();
  path.moveTo(polygon[0], polygon[1]);
  for (let i = 2; i < polygon.length; i += 2) path.lineTo(polygon[i], polygon[i + 1]);
  path.closePath();
  return path;
}
