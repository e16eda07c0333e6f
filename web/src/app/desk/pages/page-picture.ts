import { Cancelled } from '../../../workers/pdf-client';
import type { PageSource } from './page-source';
import { pictureOf, release } from './picture-store';
import type { PageWindow } from './window';

/** The picture of a page without our annotations: what is at hand at once, then the sharp one. */
export class PagePicture {
  private rendering: AbortController | undefined;
  private picture: HTMLCanvasElement | undefined;
  private isWhole = false;

  /** `urgency` tells how far the page is from the middle of the view just now. */
  constructor(
    private readonly source: PageSource,
    private readonly page: number,
    private readonly frame: HTMLElement,
    private readonly urgency: () => number,
  ) {}

  /** Draws the window sharply, with the file's marks of these object numbers. */
  async draw(window: PageWindow, marks: readonly number[]): Promise<void> {
    this.rendering?.abort();
    const rendering = (this.rendering = new AbortController());
    if (!this.picture) {
      const kept = this.source.pictures.take(this.page);
      if (kept) this.hang(kept, undefined);
    }
    const { x, y, width, height, scale } = window;
    const params = { page: this.page, scale, region: { x, y, width, height }, marks };
    try {
      const { client } = this.source;
      const bitmap = await client.ask('render', params, this.urgency, rendering.signal);
      if (rendering.signal.aborted) {
        bitmap.close();
        return;
      }
      this.hang(pictureOf(bitmap), window);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** The page goes out of sight: it leaves its picture behind for when it comes back. */
  leave(): void {
    this.rendering?.abort();
    if (this.picture && this.isWhole) this.source.pictures.put(this.page, this.picture);
    else release(this.picture);
  }

  /** Puts a picture where the page is, in place of the one before. */
  private hang(picture: HTMLCanvasElement, window: PageWindow | undefined): void {
    const share = (part: number, whole: number): string => `${(100 * part) / whole}%`;
    Object.assign(
      picture.style,
      window
        ? {
            left: share(window.x, window.pageWidth),
            top: share(window.y, window.pageHeight),
            width: share(window.width, window.pageWidth),
            height: share(window.height, window.pageHeight),
          }
        : { left: '0', top: '0', width: '100%', height: '100%' },
    );
    this.source.hasDrawn.set(true);
    this.frame.replaceChildren(picture);
    release(this.picture);
    this.picture = picture;
    this.isWhole =
      !window || (window.width === window.pageWidth && window.height === window.pageHeight);
  }
}
