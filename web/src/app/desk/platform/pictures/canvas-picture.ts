/** Pixels a point of pictures that are made of pages or annotations: 300 to the inch. */
const SHARP = 300 / 72;
/** No picture is made of more pixels; a larger area comes out less sharp. */
const MOST_PIXELS = 36e6;

/** How many pixels a point an area (points) is drawn with, to be sharp in print. */
export const printScale = (width: number, height: number): number =>
  Math.min(SHARP, Math.sqrt(MOST_PIXELS / (width * height)));

/** A canvas as a PNG file. Throws when the browser cannot make one that large. */
export function pngOf(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large'))),
      'image/png',
    ),
  );
}
