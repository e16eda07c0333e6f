import { Cancelled } from '../../../../workers/worker-client';
import type { Page } from '@stylet/core/api';
import { triedAgain } from '../../../loading/tried-again';
import { requestFor, type BitmapRequest } from './bitmap-request';
import type { PageSource } from './page-source';
import { brightPictures } from './bright-pictures';
import { canvasOf, release, type KeptBitmap } from './bitmap-store';
import type { PageWindow } from './page-window';

/** A page looks as it does for as long as it is turned the same way, and of the same page of the same file. */
export const keptKey = ({ id, rotation, source, sourceIndex }: Page): string =>
  `${id} ${rotation} ${source} ${sourceIndex}`;

/** The bitmap of a page without our annotations: what is at hand at once, then the sharp one. */
export class PageBitmap {
  private rendering: AbortController | undefined;
  private shown: KeptBitmap | undefined;
  private isWhole = false;
  private hasLeft = false;
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
    this.showKept();
    const wanted = requestFor(this.source.sheetOf(this.page()), this.page(), window, marks);
    const request = JSON.stringify(wanted);
    if (this.shown?.request === request) {
      this.hang(this.shown, window);
      return;
    }
    const bitmap = await triedAgain(
      () => this.drawn(wanted, rendering.signal),
      (error) => this.source.trouble.set(String(error)),
      rendering.signal,
    );
    if (!bitmap) return;
    if (rendering.signal.aborted) bitmap.close();
    else this.hang({ canvas: canvasOf(bitmap), request }, window);
  }

  /** Undefined where nobody waits for it any more. */
  private async drawn(
    wanted: BitmapRequest,
    signal: AbortSignal,
  ): Promise<ImageBitmap | undefined> {
    try {
      return await this.source.draw(wanted, this.urgency, signal);
    } catch (error) {
      if (error instanceof Cancelled) return undefined;
      throw error;
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
      const bright = brightPictures(shown.canvas, pictures, this.page(), window);
      if (bright) this.frame.append(bright);
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
    }
  }

  /** The page goes out of sight: it leaves its bitmap behind for when it comes back. */
  leave(): void {
    this.hasLeft = true;
    this.rendering?.abort();
    if (this.shown && this.isWhole) this.source.bitmaps.put(this.key, this.shown);
    else release(this.shown?.canvas);
  }

  /** Shows at once what was kept of the page, or else how it looks from far off. */
  private showKept(): void {
    if (this.shown) return;
    const kept = this.source.bitmaps.take(keptKey(this.page()));
    if (kept) this.hang(kept, undefined);
    // The first page is drawn before there is anything else to wait for.
    else if (this.source.hasDrawn()) void this.showMiniature();
  }

  private async showMiniature(): Promise<void> {
    const miniature = await this.source.miniatures.of(this.page());
    if (!miniature || this.shown || this.hasLeft) return;
    fillFrame(miniature);
    this.frame.replaceChildren(miniature);
  }

  /** Puts a bitmap where the page is, in place of the one before. */
  private hang(bitmap: KeptBitmap, window: PageWindow | undefined): void {
    fillFrame(bitmap.canvas, window);
    this.frame.replaceChildren(bitmap.canvas);
    this.source.drew();
    if (this.shown !== bitmap) release(this.shown?.canvas);
    this.shown = bitmap;
    this.window = window;
    void this.brighten();
    this.key = keptKey(this.page());
    this.isWhole =
      !window || (window.width === window.pageWidth && window.height === window.pageHeight);
  }
}

/** Lays a canvas where its window is in the page's frame; without one over all of it. */
export function fillFrame({ style }: HTMLCanvasElement, window?: PageWindow): void {
  const share = (part: number, whole: number): string => `${(100 * part) / whole}%`;
  const { x, y, width, height, pageWidth, pageHeight } = window ?? WHOLE;
  style.left = share(x, pageWidth);
  style.top = share(y, pageHeight);
  style.width = share(width, pageWidth);
  style.height = share(height, pageHeight);
}

const WHOLE = { x: 0, y: 0, width: 1, height: 1, pageWidth: 1, pageHeight: 1 };
