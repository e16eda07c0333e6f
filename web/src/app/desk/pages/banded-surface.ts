import { compose, transformBox, type Box, type Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Piece } from '@stylet/core/ink';
import { release } from './bitmap-store';
import { CanvasSurface } from './canvas-surface';

/** Height of a band, in pixels of its canvas. */
const HEIGHT = 256;
const SHOWN = { desynchronized: true };
const BEHIND = { willReadFrequently: true };
/** Lengths are cut to 64ths of a CSS pixel: shares of them that must not fall below a whole one get this on top. */
const ROUNDING = 0.008;

/**
 * A surface for live ink in bands, each a canvas of its own that is made when something is drawn on it: a picture is
 * handed to the screen canvas by canvas, and drawn there as far as the canvas reaches.
 */
export class BandedSurface {
  private readonly bands = new Map<number, CanvasSurface>();
  private size = { width: 0, height: 0 };
  private matrix: Matrix = [1, 0, 0, 1, 0, 0];

  /** Its canvases lie in `container` and go to the screen without waiting for the page's next frame; or it does not show. */
  constructor(private readonly container?: HTMLElement) {}

  /** Sets size and place; the surface is empty afterwards. */
  resize(width: number, height: number, matrix: Matrix): void {
    this.release();
    this.size = { width, height };
    this.matrix = matrix;
  }

  /** Fills pieces of a stroke that is being drawn; `darkens` where they lie on others. */
  fill(pieces: readonly Piece[], color: string, darkens = false): void {
    const bounds = polygonBounds(pieces.map(({ polygon }) => polygon));
    if (!bounds) return;
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
  }

  /** Gives the memory back; the surface is empty afterwards. */
  release(): void {
    for (const { canvas } of this.bands.values()) {
      canvas.remove();
      release(canvas);
    }
    this.bands.clear();
  }

  /** Numbers of the bands in which a region of page space lies, with room for soft edges. */
  private *touched(region: Box): Iterable<number> {
    const { y0, y1 } = transformBox(this.matrix, region);
    const last = Math.ceil(this.size.height / HEIGHT) - 1;
    const to = Math.min(last, Math.floor((y1 + 2) / HEIGHT));
    for (let index = Math.max(0, Math.floor((y0 - 2) / HEIGHT)); index <= to; index++) yield index;
  }

  private bandAt(index: number): CanvasSurface {
    let band = this.bands.get(index);
    if (band) return band;
    const canvas = document.createElement('canvas');
    band = new CanvasSurface(canvas, undefined, this.container ? SHOWN : BEHIND);
    const top = index * HEIGHT;
    const height = Math.min(HEIGHT, this.size.height - top);
    band.resize(this.size.width, height, compose(this.matrix, [1, 0, 0, 1, 0, -top]));
    const share = (length: number): string => `${(100 * (length + ROUNDING)) / this.size.height}%`;
    Object.assign(canvas.style, { top: share(top), height: share(height), width: '100%' });
    this.container?.append(canvas);
    this.bands.set(index, band);
    return band;
  }
}
