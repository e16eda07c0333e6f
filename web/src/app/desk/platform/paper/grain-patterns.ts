import { rgbOf } from '@stylet/core/paint';
import { GRAIN, grainTile } from '@stylet/core/ink';

/** Kept patterns: a level of grain in a colour, in the paper's own pixels. */
const patterns = new Map<string, CanvasPattern>();
const MOST = 240;

/** Has a context fill with a colour, or with the paper's grain of a level in that colour. */
export function fillWith(context: CanvasRenderingContext2D, color: string, level: number): void {
  if (level === 0) {
    context.fillStyle = color;
    return;
  }
  // Seen small, grain has to become an even grey.
  context.imageSmoothingQuality = 'medium';
  context.fillStyle = grainPattern(color, level);
}

function grainPattern(color: string, level: number): CanvasPattern {
  const key = `${color} ${level}`;
  let pattern = patterns.get(key);
  if (!pattern) {
    if (patterns.size >= MOST) patterns.clear();
    patterns.set(key, (pattern = makePattern(color, level)));
  }
  return pattern;
}

function makePattern(color: string, level: number): CanvasPattern {
  const { pixels, size } = GRAIN;
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = pixels;
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(pixels, pixels);
  const rgb = rgbOf(color).map((part) => Math.round(part * 255));
  grainTile(level).forEach((ink, i) => image.data.set([...rgb, ink * 255], i * 4));
  context.putImageData(image, 0, 0);
  const pattern = context.createPattern(canvas, 'repeat')!;
  pattern.setTransform(new DOMMatrix().scale(size / pixels));
  return pattern;
}
