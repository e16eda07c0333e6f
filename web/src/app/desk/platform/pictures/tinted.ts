const made = new WeakMap<ImageBitmap, Map<string, OffscreenCanvas>>();

/** A picture's pixels in one colour, as opaque as they are; drawn once for each colour. */
export function tinted(bitmap: ImageBitmap, tint: string): OffscreenCanvas {
  const tints = made.get(bitmap) ?? new Map<string, OffscreenCanvas>();
  made.set(bitmap, tints);
  const known = tints.get(tint);
  if (known) return known;
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = tint;
  context.fillRect(0, 0, canvas.width, canvas.height);
  tints.set(tint, canvas);
  return canvas;
}
