import type { Box, Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Piece } from '@stylet/core/ink';
import { CanvasSurface } from './canvas-surface';

/** What live ink looks like on the canvas; the rest (opacity, blend) its layer has. */
export interface LiveInk {
  readonly color: string;
  /** Whether pieces darken each other where they overlap. */
  readonly darkens?: boolean | undefined;
}

/**
 * The ink under the nib, on two canvases: what can no longer change is drawn once, and only the
 * short tail behind it is drawn again with each sample.
 */
export class LiveLayer {
  private readonly settled: CanvasSurface;
  private readonly tail: CanvasSurface;
  private shown: Box | undefined;
  private hasSettled = false;

  constructor(settled: HTMLCanvasElement, tail: HTMLCanvasElement) {
    this.settled = new CanvasSurface(settled);
    this.tail = new CanvasSurface(tail);
  }

  resize(width: number, height: number, matrix: Matrix): void {
    this.settled.resize(width, height, matrix);
    this.tail.resize(width, height, matrix);
  }

  settle(pieces: readonly Piece[], { color, darkens }: LiveInk): void {
    if (pieces.length === 0) return;
    this.settled.fill(pieces, color, darkens);
    this.hasSettled = true;
  }

  showTail(pieces: readonly Piece[], { color }: LiveInk): void {
    if (this.shown) this.tail.erase(this.shown);
    this.tail.fill(pieces, color);
    this.shown = polygonBounds(pieces.map(({ polygon }) => polygon));
  }

  clear(): void {
    this.settled.clear();
    this.tail.clear();
    this.shown = undefined;
    this.hasSettled = false;
  }

  /** Whether a stroke is being shown. */
  isShowing(): boolean {
    return this.hasSettled || this.shown !== undefined;
  }
}
