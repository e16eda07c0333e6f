/** Pictures of whole pages seen lately, as canvases, within a bound of bytes; the oldest go first. */
export class PictureStore {
  private readonly pictures = new Map<number, HTMLCanvasElement>();
  private bytes = 0;

  constructor(private readonly most: number) {}

  /** The picture of a page, which leaves the store. */
  take(page: number): HTMLCanvasElement | undefined {
    const picture = this.pictures.get(page);
    if (!picture) return undefined;
    this.pictures.delete(page);
    this.bytes -= sizeOf(picture);
    return picture;
  }

  put(page: number, picture: HTMLCanvasElement): void {
    release(this.take(page));
    this.pictures.set(page, picture);
    this.bytes += sizeOf(picture);
    for (const oldest of this.pictures.keys()) {
      if (this.bytes <= this.most) break;
      release(this.take(oldest));
    }
  }

  clear(): void {
    for (const page of [...this.pictures.keys()]) release(this.take(page));
  }
}

/** Gives a canvas's memory back at once, not when it is collected. */
export function release(canvas: HTMLCanvasElement | undefined): void {
  if (canvas) canvas.width = canvas.height = 0;
}

/** A canvas that shows a bitmap without copying it; the bitmap is used up. */
export function pictureOf(bitmap: ImageBitmap): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.className = 'picture';
  canvas.width = bitmap.width;
  canvas.height = bitmap.height;
  canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
  return canvas;
}

const sizeOf = (canvas: HTMLCanvasElement): number => canvas.width * canvas.height * 4;
