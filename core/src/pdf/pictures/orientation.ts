import type { Matrix } from '../../geometry/index';

/**
 * How a picture's file is turned to be seen upright: the value of its tag “Orientation” (TIFF 6.0,
 * section 8: which sides the first row and the first column are).
 */
export type Orientation = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8;

/** From the unit square of images in PDF (ISO 32000-1, 8.9.5: first row on top) to the upright one. */
const upright: Record<Orientation, Matrix> = {
  1: [1, 0, 0, -1, 0, 1],
  2: [-1, 0, 0, -1, 1, 1],
  3: [-1, 0, 0, 1, 1, 0],
  4: [1, 0, 0, 1, 0, 0],
  5: [0, 1, -1, 0, 1, 0],
  6: [0, 1, 1, 0, 0, 0],
  7: [0, -1, 1, 0, 0, 1],
  8: [0, -1, -1, 0, 1, 1],
};

/** The map from an image's own square to the one with its origin at the picture's top left, y down. */
export const uprightMap = (orientation: Orientation): Matrix => upright[orientation];

/** Whether an upright picture is as wide as its file is high. */
export const isTurned = (orientation: Orientation): boolean => orientation >= 5;
