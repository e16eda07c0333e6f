import { colorAt, type ScreenSurface } from '../../platform/paper/color-at';
import { showRing, type RingLook } from '../../platform/paper/ring';

/** What of a page lies under a pointer, in the order in which it is painted. */
export interface PointedPage {
  readonly host: HTMLElement;
  readonly ring: () => HTMLElement;
  /** Holds the bitmap. */
  readonly frame: () => HTMLElement;
  readonly paper: () => HTMLCanvasElement;
  readonly under: () => HTMLCanvasElement;
  readonly over: () => HTMLCanvasElement;
  /** What shows at the pointer: the eraser of so many CSS pixels, the colour there, or nothing. */
  readonly shows: () => { readonly eraser: number } | 'color' | undefined;
}

/** The ring at a pointer over a page, and the colour under it. */
export class PagePointer {
  constructor(private readonly page: PointedPage) {}

  /** Shows the eraser's area, or the colour that would be taken. Client coordinates. */
  show(x: number, y: number): void {
    const rect = this.page.host.getBoundingClientRect();
    showRing(this.page.ring(), this.lookAt(x, y), { x, y }, rect);
  }

  hide(): void {
    this.page.ring().classList.remove('shown');
  }

  /** The colour that shows at a point of the window. */
  colorAt(x: number, y: number): string {
    const bitmap = this.page.frame().querySelector('canvas');
    const surface = (canvas: HTMLCanvasElement, blend: ScreenSurface['blend']) => ({
      canvas,
      blend,
    });
    return colorAt(x, y, [
      ...(bitmap ? [surface(bitmap, 'source-over')] : []),
      surface(this.page.paper(), 'source-over'),
      surface(this.page.under(), 'multiply'),
      surface(this.page.over(), 'source-over'),
    ]);
  }

  private lookAt(x: number, y: number): RingLook | undefined {
    const shows = this.page.shows();
    if (shows === 'color') return { kind: 'color', color: this.colorAt(x, y) };
    return shows && { kind: 'eraser', size: shows.eraser };
  }
}
