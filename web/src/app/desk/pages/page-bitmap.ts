import { Cancelled } from '../../../workers/worker-client';
import type { PageOfFile, PdfRequests } from '../../../workers/protocol';
import type { Page } from '@stylet/core/api';
import type { PageSource, SourcePage } from './page-source';
import { brightPictures } from './bright-pictures';
import { canvasOf, release } from './bitmap-store';
import type { PageWindow } from './window';

export type BitmapRequest = PdfRequests['render']['params'];

/** What the worker is asked for a window onto a page, with marks that are in the file. */
export function requestFor(
  sheet: PageOfFile,
  { rotation }: Pick<SourcePage, 'rotation'>,
  { x, y, width, height, scale }: PageWindow,
  marks: readonly number[] | undefined,
): BitmapRequest {
  return { ...sheet, rotation, scale, region: { x, y, width, height }, marks };
}

/** A page looks as it does for as long as it is turned the same way. */
const keyOf = ({ id, rotation }: Page): string => `${id} ${rotation}`;

/** The bitmap of a page without our annotations: what is at hand at once, then the sharp one. */
export class PageBitmap {
  private rendering: AbortController | undefined;
  private shown: HTMLCanvasElement | undefined;
  private isWhole = false;
  private window: PageWindow | undefined;
  private isDark = false;
  /** Under what the bitmap that shows is kept. */
  private key = '';

  /** `urgency` tells how far the page is from the middle of the view just now. */
  constructor(
    private readonly source: PageSource,
    private readonly page: () => Page,
    private readonly frame: HTMLElement,
    private readonly urgency: () => number,
  ) {}

  /** Draws the window sharply, with the file's marks of these object numbers. */
  async draw(window: PageWindow, marks: readonly number[] | undefined): Promise<void> {
    this.rendering?.abort();
    const rendering = (this.rendering = new AbortController());
    if (!this.shown) {
      const kept = this.source.bitmaps.take(keyOf(this.page()));
      if (kept) this.hang(kept, undefined);
    }
    const request = requestFor(this.source.sheetOf(this.page()), this.page(), window, marks);
    try {
      const bitmap = await this.source.draw(request, this.urgency, rendering.signal);
      if (rendering.signal.aborted) {
        bitmap.close();
        return;
      }
      this.hang(canvasOf(bitmap), window);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** Shows the page dark or not: its pictures stay as they are. */
  async darken(isDark: boolean): Promise<void> {
    this.isDark = isDark;
    await this.brighten();
  }

  private async brighten(): Promise<void> {
    this.frame.querySelector('.bright')?.remove();
    const { shown, window } = this;
    if (!this.isDark || !shown || !window) return;
    try {
      const pictures = await this.source.picturesOf(this.page());
      if (this.shown !== shown || !this.isDark) return;
      const bright = brightPictures(shown, pictures, this.page(), window);
      if (bright) this.frame.append(bright);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** The page goes out of sight: it leaves its bitmap behind for when it comes back. */
  leave(): void {
    this.rendering?.abort();
    if (this.shown && this.isWhole) this.source.bitmaps.put(this.key, this.shown);
    else release(this.shown);
  }

  /** Puts a bitmap where the page is, in place of the one before. */
  private hang(bitmap: HTMLCanvasElement, window: PageWindow | undefined): void {
    const share = (part: number, whole: number): string => `${(100 * part) / whole}%`;
    Object.assign(
      bitmap.style,
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
    this.frame.replaceChildren(bitmap);
    release(this.shown);
    this.shown = bitmap;
    this.window = window;
    void this.brighten();
    this.key = keyOf(this.page());
    this.isWhole =
      !window || (window.width === window.pageWidth && window.height === window.pageHeight);
  }
}
