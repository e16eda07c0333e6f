import type { ShapeAnnotation } from '../../document/index';
import { boundsOf, type Box, type Matrix, type Point } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import { axesOf, isRound, shapePaths, transformShape, type Shape } from '../../shapes/index';
import { PdfDict, name, type PdfValue } from '../objects/index';

const round = (value: number): number => Math.round(value * 100) / 100;

/**
 * What ISO 32000-1 asks of a shape besides its appearance: /Line (12.5.6.7), /Square and /Circle
 * (12.5.6.8), /Polygon and /PolyLine (12.5.6.9). What those cannot say exactly (bent sides, turned
 * boxes and ellipses) is given by points of its outline. `rect` is the annotation's rectangle.
 */
export function shapeEntries(
  shape: ShapeAnnotation,
  toUser: Matrix,
  rect: Box,
): Record<string, PdfValue> {
  const inUser = transformShape(shape, toUser);
  return {
    ...(boxEntries(inUser, rect) ?? lineEntries(inUser) ?? outlineEntries(inUser, shape.width)),
    BS: PdfDict.of({ Type: name('Border'), W: round(shape.width), S: name('S') }),
    ...(shape.fill > 0 ? { IC: interior(shape) } : {}),
  };
}

/** Level boxes and ellipses: the rectangle, and how far within it they lie. */
function boxEntries(shape: Shape, rect: Box): Record<string, PdfValue> | undefined {
  if (!isLevel(shape)) return undefined;
  const box = boundsOf(isRound(shape) ? extremes(shape) : shape.points)!;
  return {
    Subtype: name(isRound(shape) ? 'Circle' : 'Square'),
    RD: [box.x0 - rect.x0, box.y0 - rect.y0, rect.x1 - box.x1, rect.y1 - box.y1].map(round),
  };
}

function isLevel(shape: Shape): boolean {
  if (shape.bends?.some((bend) => bend !== 0)) return false;
  if (shape.form === 'circle') return true;
  if (shape.form !== 'rectangle' && shape.form !== 'ellipse') return false;
  const [p, q] = shape.points;
  return Math.min(Math.abs(p.x - q.x), Math.abs(p.y - q.y)) < 0.005;
}

/** The points of a level ellipse at its left, right, top and bottom. */
function extremes(shape: Shape): Point[] {
  const [centre] = shape.points;
  return axesOf(shape).flatMap(({ x, y }) => [
    { x: centre.x + x, y: centre.y + y },
    { x: centre.x - x, y: centre.y - y },
  ]);
}

function lineEntries({ form, points, bends }: Shape): Record<string, PdfValue> | undefined {
  if ((form !== 'line' && form !== 'arrow') || bends?.some((bend) => bend !== 0)) return undefined;
  const [from, to] = points;
  return {
    Subtype: name('Line'),
    L: [from.x, from.y, to.x, to.y].map(round),
    LE: [name('None'), name(form === 'arrow' ? 'OpenArrow' : 'None')],
  };
}

function outlineEntries(shape: Shape, width: number): Record<string, PdfValue> {
  const isOpen = shape.form === 'line' || shape.form === 'arrow';
  const isBent = isRound(shape) || shape.bends?.some((bend) => bend !== 0);
  const path = shapePaths(shape, width)[0];
  const points = isBent ? (isOpen ? path : path.slice(0, -1)) : shape.points;
  return {
    Subtype: name(isOpen ? 'PolyLine' : 'Polygon'),
    Vertices: points.flatMap(({ x, y }) => [round(x), round(y)]),
    ...(shape.form === 'arrow' ? { LE: [name('None'), name('OpenArrow')] } : {}),
  };
}

/** The colour of the filling as it shows on white paper. */
function interior({ color, fill }: ShapeAnnotation): number[] {
  return rgbOf(color).map((c) => round(1 - fill * (1 - c)));
}
