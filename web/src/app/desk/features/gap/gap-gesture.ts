import type { Effect } from '@stylet/core/document';
import type { Matrix } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from '../../platform/input/gesture';

/** What a gap needs of its page. */
export interface GapTarget {
  /** From the page as shown, in points, to page space, and back. */
  readonly toPage: Matrix;
  readonly toShown: Matrix;
  /** Takes hold of everything below a height of the page as shown. */
  take(y: number): void;
  /** Shows what was taken moved, and the line that is drawn (heights of the page as shown). */
  show(matrix: Matrix, from: number, to: number): void;
  /** Lets go of it where it is shown. */
  drop(matrix: Matrix): void;
  cancel(): void;
}

/** Way in points under which nothing was meant to move. */
const LEAST = 1;

/** Opens or closes room: what lies below the line where the pen came down follows the pen. */
export class GapGesture implements Gesture {
  private from: number | undefined;
  private by = 0;

  constructor(private readonly target: GapTarget) {}

  move(samples: readonly Sample[]): void {
    for (const sample of samples) {
      const [, b, , d, , f] = this.target.toShown;
      const y = b * sample.x + d * sample.y + f;
      if (this.from === undefined) {
        this.from = y;
        this.target.take(y);
      }
      this.by = y - this.from;
    }
    if (this.from !== undefined) this.target.show(this.matrix(), this.from, this.from + this.by);
  }

  end(): Effect[] {
    if (Math.abs(this.by) < LEAST) this.target.cancel();
    else this.target.drop(this.matrix());
    return [];
  }

  cancel(): void {
    this.target.cancel();
  }

  /** Straight down the page as it is shown, in page space. */
  private matrix(): Matrix {
    const [, , c, d] = this.target.toPage;
    return [1, 0, 0, 1, c * this.by, d * this.by];
  }
}
