import { isoA, toPoints } from './sizes';

/** What paper is ruled with. */
export const rulings = ['blank', 'lined', 'squared'] as const;
export type Ruling = (typeof rulings)[number];

/** The size of a sheet, in points. */
export interface SheetSize {
  readonly width: number;
  readonly height: number;
}

/** A sheet of paper. */
export interface Paper extends SheetSize {
  readonly ruling: Ruling;
}

/** A sheet of ISO 216 size A4, upright. */
export function a4(): SheetSize {
  const { width, height } = isoA(4);
  return { width: toPoints(width), height: toPoints(height) };
}

/** As wide as A4 is high, in the shape of most screens: 16 to 10. */
export function screenSheet(): SheetSize {
  const { height: width } = a4();
  return { width, height: (width * 10) / 16 };
}
