/** Millimetres in a point (1/72 in, 25.4 mm to the inch). */
export const MM_PER_POINT = 25.4 / 72;

/** Points to millimetres. */
export const toMillimetres = (points: number): number => points * MM_PER_POINT;

/** Millimetres to points. */
export const toPoints = (millimetres: number): number => millimetres / MM_PER_POINT;

/** A sheet's size in millimetres, upright. */
export interface PaperSize {
  readonly width: number;
  readonly height: number;
}

/**
 * The size A`n` of ISO 216, in mm. A0 is 841 × 1189 mm; each further size halves the longer side
 * of the one before, rounded down to a whole millimetre. Throws RangeError outside A0–A10.
 */
export function isoA(n: number): PaperSize {
  if (!Number.isInteger(n) || n < 0 || n > 10) throw new RangeError('ISO 216 knows A0 to A10');
  let width = 841;
  let height = 1189;
  for (let i = 0; i < n; i++) [width, height] = [Math.floor(height / 2), width];
  return { width, height };
}

/** The name of the ISO 216 size a page has, whichever way round, within `tolerance` mm. */
export function paperName(
  widthPoints: number,
  heightPoints: number,
  tolerance = 1,
): string | undefined {
  const short = toMillimetres(Math.min(widthPoints, heightPoints));
  const long = toMillimetres(Math.max(widthPoints, heightPoints));
  for (let n = 0; n <= 10; n++) {
    const size = isoA(n);
    if (Math.abs(size.width - short) <= tolerance && Math.abs(size.height - long) <= tolerance)
      return `A${n}`;
  }
  return undefined;
}
