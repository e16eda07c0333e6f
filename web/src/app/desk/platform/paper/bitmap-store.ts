import { LRUCache } from 'lru-cache';

/** A bitmap on a canvas, and what was asked for to get it. */
export interface KeptBitmap {
  readonly canvas: HTMLCanvasElement;
  readonly request: string;
}

/** Bitmaps of whole pages seen lately, within a bound of bytes; the oldest go first. */
export class BitmapStore {
  private readonly bitmaps: LRUCache<string, KeptBitmap>;

  constructor(most: number) {
    this.bitmaps = new LRUCache({
      maxSize: most,
      sizeCalculation: ({ canvas }) => Math.max(1, sizeOf(canvas)),
      // Taking one hands it over: it is the taker's to release.
      dispose: ({ canvas }, _page, why) => why !== 'delete' && release(canvas),
    });
  }

  /** The bitmap of a page, which leaves the store. */
  take(page: string): KeptBitmap | undefined {
    const bitmap = this.bitmaps.peek(page);
    this.bitmaps.delete(page);
    return bitmap;
  }

  put(page: string, bitmap: KeptBitmap): void {
    this.bitmaps.set(page, bitmap);
    // One that is too large by itself is not taken.
    if (this.bitmaps.peek(page) !== bitmap) release(bitmap.canvas);
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
