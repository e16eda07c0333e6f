import type { Matrix } from './matrix';

/**
 * From page space (unrotated, points) to the page as shown: turned clockwise by `rotation` degrees
 * and enlarged by `scale`, with its top left at the origin. Width and height are unrotated.
 */
export function pageView(
  width: number,
  height: number,
  rotation: 0 | 90 | 180 | 270,
  scale: number,
): Matrix {
  const s = scale;
  switch (rotation) {
    case 0:
      return [s, 0, 0, s, 0, 0];
    case 90:
      return [0, s, -s, 0, s * height, 0];
    case 180:
      return [-s, 0, 0, -s, s * width, s * height];
    case 270:
      return [0, -s, s, 0, 0, s * width];
  }
}
