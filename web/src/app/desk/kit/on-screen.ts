/** Points of a page to a CSS pixel where it is shown in its own size (CSS Values 4, 6.2: 96 px are an inch). */
const OWN_SIZE = 72 / 96;

/** A width or size in points on the page: one that is meant on the screen is the finer the larger the page is shown. */
export const sizeOnPage = (
  size: number,
  isOnScreen: boolean | undefined,
  pointsPerPixel: number,
): number => (isOnScreen ? (size * pointsPerPixel) / OWN_SIZE : size);
