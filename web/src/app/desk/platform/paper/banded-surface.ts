import { compose, transformBox, type Box, type Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Piece } from '@stylet/core/ink';
import { release } from './bitmap-store';
import { CanvasSurface } from './canvas-surface';

/** Heights that bands may have, in CSS pixels. */
const HEIGHTS = { least: 192, most: 320 } as const;

/**
 * The height of a band: as many CSS pixels, a whole number, as are a whole number of the screen's. Bands that begin
 * between two pixels have seams.
 */
function bandHeight(): number {
  let best = HEIGHTS.least;
  const off = (height: number): number =>
    Math.abs(height * devicePixelRatio - Math.round(height * devicePixelRatio));
  for (let height = HEIGHTS.least; height <= HEIGHTS.most; height++)
    if (off(height) < off(best) - 1e-6) best = height;
  return best;
}

const SHOWN = { desynchronized: true };
const BEHIND = { willReadFrequently: true };

/**
 * A surface for live ink in bands, each a canvas of its own that is made when something is drawn on it: a picture is
 * handed to the screen canvas by canvas, and drawn there as far as the canvas reaches.
 */
export class BandedSurface {
  private readonly bands = new Map<number, CanvasSurface>();
  private size = { width: 0, height: 0 };
  private matrix: Matrix = [1, 0, 0, 1, 0, 0];
  private isBlank = true;
  /** Of a band, in CSS pixels and in pixels of its canvas. */
  private height = { shown: 0, drawn: 1 };

  /** Its canvases lie in `container` and go to the screen without waiting for the page's next frame; or it does not show. */
  constructor(private readonly container?: HTMLElement) {}

  /** Sets size and place; the surface is empty afterwards. */
  resize(width: number, height: number, matrix: Matrix): void {
    this.release();
    this.size = { width, height };
    const shown = bandHeight();
    this.height = { shown, drawn: Math.round(shown * devicePixelRatio) };
    this.matrix = matrix;
  }

  /** Fills pieces of a stroke that is being drawn; `darkens` where they lie on others. */
  fill(pieces: readonly Piece[], color: string, darkens = false): void {
    const bounds = polygonBounds(pieces.map(({ polygon }) => polygon));
    if (!bounds) return;
    if (this.isBlank) for (const [index, { canvas }] of this.bands) this.place(canvas, index);
    this.isBlank = false;
    for (const index of this.touched(bounds)) this.bandAt(index).fill(pieces, color, darkens);
  }

  /** Shows in a region (page space) what another surface of the same size, which does not show, has there. */
  restore(other: BandedSurface, region: Box): void {
    for (const index of this.touched(region)) {
      const from = other.bands.get(index);
      if (from) this.bands.get(index)?.restore(from, region);
      else this.bands.get(index)?.erase(region);
    }
  }

  clear(): void {
    for (const band of this.bands.values()) band.clear();
    this.isBlank = true;
  }

  /** Gives the memory back; the surface is empty afterwards. */
  release(): void {
    for (const { canvas } of this.bands.values()) {
      canvas.remove();
      release(canvas);
    }
    this.bands.clear();
    this.isBlank = true;
  }

  /** Numbers of the bands in which a region of page space lies, with room for soft edges. */
  private *touched(region: Box): Iterable<number> {
    const { y0, y1 } = transformBox(this.matrix, region);
    const last = Math.ceil(this.size.height / this.height.drawn) - 1;
    const bandOf = (y: number): number => Math.floor(y / this.height.drawn);
    const to = Math.min(last, bandOf(y1 + 2));
    for (let index = Math.max(0, bandOf(y0 - 2)); index <= to; index++) yield index;
  }

  /** In pixels of its canvas: the last band has the rest of the page. */
  private heightOf(index: number): number {
    return Math.min(this.height.drawn, this.size.height - index * this.height.drawn);
  }

  private bandAt(index: number): CanvasSurface {
    let band = this.bands.get(index);
    if (band) return band;
    const canvas = document.createElement('canvas');
    band = new CanvasSurface(canvas, undefined, this.container ? SHOWN : BEHIND);
    const top = index * this.height.drawn;
    band.resize(this.size.width, this.heightOf(index), compose(this.matrix, [1, 0, 0, 1, 0, -top]));
    this.place(canvas, index);
    this.container?.append(canvas);
    this.bands.set(index, band);
    return band;
  }

  /**
   * Lays a band where it belongs: pixel on pixel where the page is as large as it was drawn; else (it is being
   * zoomed) as large as the page is now.
   */
  private place({ style }: HTMLCanvasElement, index: number): void {
    if (!this.container) return;
    const shown = this.container.getBoundingClientRect().height;
    const drawn = this.size.height / devicePixelRatio;
    const scale = Math.abs(shown - drawn) < 1 ? 1 : shown / drawn;
    const pixels = (length: number): string => `${length * scale}px`;
    style.top = pixels(index * this.height.shown);
    style.height = pixels(this.heightOf(index) / devicePixelRatio);
    style.width = pixels(this.size.width / devicePixelRatio);
  }
}
