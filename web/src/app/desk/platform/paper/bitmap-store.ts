/** A bitmap on a canvas, and what was asked for to get it. */
export interface KeptBitmap {
  readonly canvas: HTMLCanvasElement;
  readonly request: string;
}

/** Bitmaps of whole pages seen lately, within a bound of bytes; the oldest go first. */
export class BitmapStore {
  private readonly bitmaps = new Map<string, KeptBitmap>();
  private bytes = 0;

  constructor(private readonly most: number) {}

  /** The bitmap of a page, which leaves the store. */
  take(page: string): KeptBitmap | undefined {
    const bitmap = this.bitmaps.get(page);
    if (!bitmap) return undefined;
    this.bitmaps.delete(page);
    this.bytes -= sizeOf(bitmap.canvas);
    return bitmap;
  }

  put(page: string, bitmap: KeptBitmap): void {
    release(this.take(page)?.canvas);
    this.bitmaps.set(page, bitmap);
    this.bytes += sizeOf(bitmap.canvas);
    for (const oldest of this.bitmaps.keys()) {
      if (this.bytes <= this.most) break;
      release(this.take(oldest)?.canvas);
    }
  }

  clear(): void {
    for (const page of [...this.bitmaps.keys()]) release(this.take(page)?.canvas);
  }
}

/** Gives a canvas's memory back at once, not when it is collected. */
export function release(canvas: HTMLCanvasElement | undefined): void {
  if (canvas) canvas.width = canvas.height = 0;
}

/** A canvas that shows a bitmap without copying it; the bitmap is used up. */
export function canvasOf(bitmap: ImageBitmap): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.className = 'bitmap';
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  // Paper is opaque: what lies below it need not be drawn.
  canvas.getContext('bitmaprenderer', { alpha: false })!.transferFromImageBitmap(bitmap);
  return canvas;
}

const sizeOf = (canvas: HTMLCanvasElement): number => canvas.width * canvas.height * 4;
