/** Pictures of whole pages seen lately, within a bound of bytes; the oldest go first. */
export class BitmapStore {
  private readonly bitmaps = new Map<number, ImageBitmap>();
  private bytes = 0;

  constructor(private readonly most: number) {}

  get(page: number): ImageBitmap | undefined {
    const bitmap = this.bitmaps.get(page);
    if (bitmap) {
      this.bitmaps.delete(page);
      this.bitmaps.set(page, bitmap);
    }
    return bitmap;
  }

  /** Takes the bitmap over. */
  put(page: number, bitmap: ImageBitmap): void {
    this.drop(page);
    this.bitmaps.set(page, bitmap);
    this.bytes += sizeOf(bitmap);
    for (const oldest of this.bitmaps.keys()) {
      if (this.bytes <= this.most) break;
      this.drop(oldest);
    }
  }

  drop(page: number): void {
    const bitmap = this.bitmaps.get(page);
    if (!bitmap) return;
    this.bitmaps.delete(page);
    this.bytes -= sizeOf(bitmap);
    bitmap.close();
  }

  clear(): void {
    for (const page of [...this.bitmaps.keys()]) this.drop(page);
  }
}

const sizeOf = (bitmap: ImageBitmap): number => bitmap.width * bitmap.height * 4;
