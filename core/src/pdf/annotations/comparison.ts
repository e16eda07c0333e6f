import type { Markup } from '../../document/index';
import type { Box, Matrix } from '../../geometry/index';
import { numberOr, type PdfDict, type PdfFile, type PdfValue } from '../objects/index';
import type { Cleaning } from '../storable';
import { numbersOf, pointsOf } from './entries';
import type { Own } from './own-copy';

/** What is compared: an annotation, what Stylet wrote of it, and what stands there now. */
export interface Comparison<A extends Own = Own> {
  readonly file: PdfFile;
  readonly annotation: A;
  readonly dict: PdfDict;
  /** Entries Stylet would write. */
  readonly written: Readonly<Record<string, PdfValue>>;
  readonly toPage: Matrix;
  readonly toUser: Matrix;
  readonly clean: Cleaning;
  /** Whether an entry is not as it was written. */
  readonly differs: (key: string) => boolean;
  /**
   * Where viewers show what was in its rectangle before: they fit the appearance into the rectangle there is now
   * (12.5.5, algorithm 8.1). In page space; undefined where it has not moved, or has a new appearance.
   */
  readonly movedWithLook: Matrix | undefined;
}

/** The map that enlarges and moves one box into another; undefined where one of them has no area. */
export function boxMap(from: Box, to: Box): Matrix | undefined {
  const [sx, sy] = [(to.x1 - to.x0) / (from.x1 - from.x0), (to.y1 - to.y0) / (from.y1 - from.y0)];
  if (!Number.isFinite(sx * sy) || sx * sy <= 0) return undefined;
  return [sx, 0, 0, sy, to.x0 - from.x0 * sx, to.y0 - from.y0 * sy];
}

/** The width of its line (tables 166 and 168): the style's, or else the border's. */
export function lineWidth(file: PdfFile, dict: PdfDict): number {
  const style = file.dict(dict.get('BS'));
  const width = style
    ? numberOr(file.resolve(style.get('W')))
    : numbersOf(file, dict.get('Border'))[2];
  return Math.min(200, Math.max(0.01, width ?? 1));
}

/** Quadrilaterals in page space, of numbers in default user space; what is no whole one is left out. */
export function quadsOf(numbers: readonly number[], toPage: Matrix): Markup['quads'] {
  const points = pointsOf(numbers, toPage);
  const quads: Markup['quads'] = [];
  for (let i = 0; i + 3 < points.length; i += 4)
    quads.push(points.slice(i, i + 4).flatMap(({ x, y }) => [x, y]) as Markup['quads'][number]);
  return quads;
}
