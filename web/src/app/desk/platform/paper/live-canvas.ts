import type { Box, Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Piece } from '@stylet/core/ink';
import type { FillCommand } from '@stylet/core/paint';
import { BandedSurface } from './banded-surface';

/** What live ink looks like on the canvas; the rest (opacity, blend) its surface has. */
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
 * Frames until what a page shows instead is on the screen for sure: the one that draws it, the one that may begin
 * before that is activated, and the one that cannot.
 */
const FRAMES_TO_HAND_OVER = 3;

/**
 * The ink under the nib, on canvases that go to the screen by themselves, without waiting for the page's next frame
 * (docs/decisions/0043-low-latency-ink.md). What can no longer change is drawn once, also on others behind them: from
 * there comes what is seen again where the short tail was, which is drawn anew with each sample.
 */
export class LiveCanvas implements LiveSurface {
  private readonly settled = new BandedSurface();
  private readonly surface: BandedSurface;
  /** Where the tail is; page space. */
  private shown: Box | undefined;
  private hasSettled = false;
  /** The frame that is waited for before what was handed over is taken away. */
  private leaving = 0;

  constructor(private readonly container: HTMLElement) {
    this.surface = new BandedSurface(container);
  }

  resize(width: number, height: number, matrix: Matrix): void {
    this.settled.resize(width, height, matrix);
    this.surface.resize(width, height, matrix);
  }

  settle(pieces: readonly Piece[], { color, darkens }: LiveInk): void {
    if (pieces.length === 0) return;
    this.takeTail();
    for (const surface of [this.settled, this.surface]) surface.fill(pieces, color, darkens);
    this.hasSettled = true;
  }

  showTail(pieces: readonly Piece[], { color, darkens }: LiveInk): void {
    this.takeTail();
    this.surface.fill(pieces, color, darkens);
    this.shown = boundsOf(pieces);
  }

  showWhole(commands: readonly FillCommand[]): void {
    this.clear();
    // The canvas’s own opacity is the outline's.
    const whole = commands.at(-1)?.opacity ?? 1;
    for (const { pieces, color, opacity } of commands)
      this.surface.fill(pieces, withOpacity(color, opacity / whole));
    this.shown = boundsOf(commands.flatMap(({ pieces }) => pieces));
  }

  clear(): void {
    this.settled.clear();
    this.surface.clear();
    this.shown = undefined;
    this.hasSettled = false;
    this.setLeaving(0);
  }

  /**
   * The page's next frame shows what is shown here. As these canvases are ahead of it, they are hidden with that
   * frame, and emptied once it is there.
   */
  handOver(): void {
    if (!this.isShowing()) return;
    const wait = (frames: number): void => {
      this.setLeaving(requestAnimationFrame(() => (frames > 1 ? wait(frames - 1) : this.clear())));
    };
    wait(FRAMES_TO_HAND_OVER);
  }

  /** Whether a stroke is being shown. */
  isShowing(): boolean {
    return this.leaving === 0 && (this.hasSettled || this.shown !== undefined);
  }

  /** Gives the memory back. */
  release(): void {
    cancelAnimationFrame(this.leaving);
    this.settled.release();
    this.surface.release();
  }

  /** Shows what is behind the tail. A new stroke waits for nothing that the one before waits for. */
  private takeTail(): void {
    if (this.leaving !== 0) this.clear();
    if (this.shown) this.surface.restore(this.settled, this.shown);
    this.shown = undefined;
  }

  private setLeaving(frame: number): void {
    if (frame === 0) cancelAnimationFrame(this.leaving);
    this.leaving = frame;
    this.container.style.visibility = frame === 0 ? '' : 'hidden';
  }
}

const boundsOf = (pieces: readonly Piece[]): Box | undefined =>
  polygonBounds(pieces.map(({ polygon }) => polygon));

function withOpacity(color: string, opacity: number): string {
  const byte = Math.round(255 * Math.min(1, opacity));
  return byte === 255 ? color : `${color}${byte.toString(16).padStart(2, '0')}`;
}
