import { PIXELS_PER_POINT } from '../paper/layout';

/** A width or size in points on the page: one that is meant on the screen is the finer the larger the page is shown. */
export const sizeOnPage = (
  size: number,
  isOnScreen: boolean | undefined,
  pointsPerPixel: number,
): number => (isOnScreen ? size * pointsPerPixel * PIXELS_PER_POINT : size);
