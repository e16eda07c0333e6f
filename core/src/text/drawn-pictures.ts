import {
  boundsOf,
  compose,
  heightOf,
  transform,
  widthOf,
  type Box,
  type Matrix,
} from '../geometry/index';
import { follow, isMatrix, type OperatorList } from './operator-list';

/** The corners of a picture, the way round, in page space (points). */
export type PictureCorners = readonly { readonly x: number; readonly y: number }[];

/**
 * Where a page draws pictures, from its operators: each fills the unit square (ISO 32000-1, 8.9.5).
 * Stencil masks are no pictures: they are drawn in a colour, as letters are. `codes` are the operator
 * numbers by name, `toPage` maps default user space to page space.
 */
export function drawnPictures(
  list: OperatorList,
  codes: Readonly<Record<string, number>>,
  toPage: Matrix,
): PictureCorners[] {
  const found: PictureCorners[] = [];
  const saved: Matrix[] = [];
  let matrix = toPage;
  const enter = (inner: unknown): void => {
    saved.push(matrix);
    if (isMatrix(inner)) matrix = compose(inner, matrix);
  };
  const leave = (): void => {
    matrix = saved.pop() ?? matrix;
  };
  const picture = (by: Matrix): number =>
    found.push(UNIT_SQUARE.map((corner) => transform(by, corner)));
  const actions: Record<string, (args: unknown[]) => void> = {
    save: () => saved.push(matrix),
    restore: leave,
    transform: (args) => (matrix = compose(args as unknown as Matrix, matrix)),
    paintFormXObjectBegin: ([inner]) => enter(inner),
    paintFormXObjectEnd: leave,
    beginGroup: ([group]) => enter((group as { matrix?: unknown }).matrix),
    endGroup: leave,
    paintImageXObject: () => picture(matrix),
    paintInlineImageXObject: () => picture(matrix),
    paintImageXObjectRepeat: ([, width, height, positions]) => {
      const at = positions as ArrayLike<number>;
      for (let i = 0; i < at.length; i += 2)
        picture(compose([width as number, 0, 0, height as number, at[i], at[i + 1]], matrix));
    },
    paintInlineImageXObjectGroup: ([, parts]) => {
      for (const part of parts as { transform: Matrix }[]) picture(compose(part.transform, matrix));
    },
  };
  follow(list, codes, actions);
  return found;
}

const UNIT_SQUARE = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/** What takes up so much of a page is its paper: a scan. */
const PAPER = 0.7;

const area = (box: Box): number => widthOf(box) * heightOf(box);

/** The pictures that are on the page, and not the page itself. */
export const besidesPaper = (pictures: readonly PictureCorners[], page: Box): PictureCorners[] =>
  pictures.filter((corners) => area(boundsOf([...corners])!) < PAPER * area(page));
