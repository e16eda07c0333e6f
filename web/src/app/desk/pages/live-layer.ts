import type { Box, Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Piece } from '@stylet/core/ink';
import type { FillCommand } from '@stylet/core/paint';
import { CanvasSurface } from './canvas-surface';

/** What live ink looks like on the canvas; the rest (opacity, blend) its layer has. */
export interface LiveInk {
  readonly color: string;
  /** Whether pieces darken each other where they overlap. */
  readonly darkens?: boolean | undefined;
}

/** Where ink is shown while it is being drawn. */
export interface LiveSurface {
  /** Shows pieces that can no longer change. */
  settle(pieces: readonly Piece[], ink: LiveInk): void;
  /** Shows what may still change instead of what of that was shown before. */
  showTail(pieces: readonly Piece[], ink: LiveInk): void;
  /** Shows something whole instead of everything shown before. */
  showWhole(commands: readonly FillCommand[]): void;
  clear(): void;
  /** Shows at once what would be shown with the next frame: the stroke has ended. */
  flush?(): void;
}

/**
 * The ink under the nib, on two canvases: what can no longer change is drawn once, and only the
 * short tail behind it is drawn again with each sample.
 */
export class LiveLayer implements LiveSurface {
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

  showWhole(commands: readonly FillCommand[]): void {
    this.clear();
    // The layer's own opacity is the outline's.
    const whole = commands.at(-1)?.opacity ?? 1;
    for (const { pieces, color, opacity } of commands)
      this.tail.fill(pieces, withOpacity(color, opacity / whole));
    this.shown = polygonBounds(
      commands.flatMap(({ pieces }) => pieces.map(({ polygon }) => polygon)),
    );
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

function withOpacity(color: string, opacity: number): string {
  const byte = Math.round(255 * Math.min(1, opacity));
  return byte === 255 ? color : `${color}${byte.toString(16).padStart(2, '0')}`;
}
