import type { ShapeAnnotation } from '../../document/index';
import { compose, type Box, type Point } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import { nameText, type PdfDict, type PdfFile, type PdfValue } from '../objects/index';
import { readBox } from '../pages';
import { mapBetween } from './affine';
import { numbersOf, pointsOf } from './entries';
import { movedBy } from './own-copy';
import { boxMap, lineWidth, type Comparison } from './comparison';

/** Line endings that point somewhere (ISO 32000-1, table 176). */
const ARROWS = new Set(['OpenArrow', 'ClosedArrow', 'ROpenArrow', 'RClosedArrow']);

type OfShape = Comparison<ShapeAnnotation>;

/** A shape with what other programs have changed of it; see `asTheFileHasIt`. */
export function shapeAsTheFileHasIt(comparison: OfShape): ShapeAnnotation | undefined {
  const { file, annotation, dict, differs } = comparison;
  if (differs('Subtype')) return undefined;
  const placed = inItsPlace(comparison);
  const filled = placed && withFill(comparison, placed);
  if (!filled) return undefined;
  if (filled === annotation && !differs('BS')) return annotation;
  // However it was enlarged: its line is as wide as it says.
  return { ...filled, width: differs('BS') ? lineWidth(file, dict) : annotation.width };
}

function inItsPlace(comparison: OfShape): ShapeAnnotation | undefined {
  const { annotation, differs, movedWithLook, written } = comparison;
  if (written['RD']) return boxed(comparison);
  if (written['L'] && (differs('L') || differs('LE'))) return line(comparison);
  if (written['Vertices'] && differs('Vertices')) return cornered(comparison);
  return movedWithLook ? movedBy(annotation, movedWithLook) : annotation;
}

/** Squares and circles lie in their rectangle, as far in as /RD says (table 177). */
function boxed({ file, annotation, dict, written, toUser, toPage, differs }: OfShape) {
  if (!differs('Rect') && !differs('RD')) return annotation;
  const [before, now] = [
    innerBox(file, written['Rect'], written['RD']),
    innerBox(file, dict.get('Rect'), dict.get('RD')),
  ];
  const map = before && now && boxMap(before, now);
  return map && movedBy(annotation, compose(toUser, compose(map, toPage)));
}

function innerBox(file: PdfFile, rect: PdfValue, within: PdfValue): Box | undefined {
  const box = readBox(file, rect);
  const [left, bottom, right, top] = [...numbersOf(file, within), 0, 0, 0, 0];
  return box && { x0: box.x0 + left, y0: box.y0 + bottom, x1: box.x1 - right, y1: box.y1 - top };
}

function line({ file, annotation, dict, toPage }: OfShape): ShapeAnnotation | undefined {
  const points = pointsOf(numbersOf(file, dict.get('L')), toPage);
  if (points.length !== 2) return undefined;
  const [first, last] = endings(file, dict);
  const isTurned = first && !last;
  return {
    ...annotation,
    form: first || last ? 'arrow' : 'line',
    points: isTurned ? points.reverse() : points,
  };
}

/** Whether a line's start and its end point somewhere. */
export function endings(file: PdfFile, dict: PdfDict): [boolean, boolean] {
  const names = file.array(dict.get('LE')).map((value) => nameText(file.resolve(value)) ?? '');
  return [ARROWS.has(names[0]), ARROWS.has(names[1])];
}

function cornered(comparison: OfShape): ShapeAnnotation | undefined {
  const { file, annotation, dict, written, toPage } = comparison;
  const now = pointsOf(numbersOf(file, dict.get('Vertices')), toPage);
  const before = pointsOf(written['Vertices'] as number[], toPage);
  const map = mapBetween(before, now);
  if (map) return movedBy(annotation, map);
  const isClosed = nameText(file.resolve(dict.get('Subtype'))) === 'Polygon';
  const form = isClosed ? 'polygon' : formOfWay(comparison, now);
  if (!form || now.length > 60 || (isClosed && now.length < 3)) return undefined;
  return { ...annotation, form, points: now, bends: [] };
}

/** Lines here have two ends and nothing between. */
function formOfWay(
  { file, dict }: OfShape,
  points: readonly Point[],
): 'arrow' | 'line' | undefined {
  if (points.length !== 2) return undefined;
  return endings(file, dict)[1] ? 'arrow' : 'line';
}

/** How much of its colour covers what it goes round; undefined where that is another colour. */
function withFill(
  { file, annotation, dict, differs }: OfShape,
  placed: ShapeAnnotation,
): ShapeAnnotation | undefined {
  if (!differs('IC')) return placed;
  const fill = fillIn(annotation.color, numbersOf(file, dict.get('IC')));
  return fill === undefined ? undefined : { ...placed, fill };
}

/** How much of a colour covers an area of an interior colour (table 177, IC); undefined where that is another one. */
export function fillIn(ofColor: string, interior: readonly number[]): number | undefined {
  if (interior.length === 0) return 0;
  if (interior.length !== 3) return undefined;
  const color = rgbOf(ofColor);
  const shares = color.flatMap((c, i) => (c < 0.99 ? [(1 - interior[i]) / (1 - c)] : []));
  if (shares.length === 0) return 1;
  const fill = Math.min(1, Math.max(0, shares.reduce((a, b) => a + b) / shares.length));
  const isIts = color.every((c, i) => Math.abs(1 - fill * (1 - c) - interior[i]) < 0.05);
  return isIts ? fill : undefined;
}
