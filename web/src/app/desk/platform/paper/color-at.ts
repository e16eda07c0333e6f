import { hexOf } from '@stylet/core/paint';

/** A canvas on the screen and how it lies on those before it. */
export interface ScreenSurface {
  readonly canvas: HTMLCanvasElement;
  readonly blend: 'source-over' | 'multiply';
}

let pixel: CanvasRenderingContext2D | undefined;

/** The colour that canvases laid on white paper show at a point of the window. */
export function colorAt(x: number, y: number, surfaces: readonly ScreenSurface[]): string {
  if (!pixel) {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 1;
    pixel = canvas.getContext('2d', { willReadFrequently: true })!;
  }
  pixel.globalCompositeOperation = 'source-over';
  pixel.fillStyle = '#fff';
  pixel.fillRect(0, 0, 1, 1);
  for (const { canvas, blend } of surfaces) {
    if (canvas.width === 0) continue;
    const rect = canvas.getBoundingClientRect();
    const sx = Math.floor(((x - rect.left) / rect.width) * canvas.width);
    const sy = Math.floor(((y - rect.top) / rect.height) * canvas.height);
    pixel.globalCompositeOperation = blend;
    pixel.drawImage(canvas, sx, sy, 1, 1, 0, 0, 1, 1);
  }
  const [r, g, b] = pixel.getImageData(0, 0, 1, 1).data;
  return hexOf(r / 255, g / 255, b / 255);
}
