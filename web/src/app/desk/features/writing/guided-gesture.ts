import type { Effect } from '@stylet/core/document';
import { alongEdge, onEdge, type Edge } from '@stylet/core/guides';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from '../../platform/input/gesture';

/** Draws along an edge: what it gives on lies exactly on it. */
export class GuidedGesture implements Gesture {
  private from: number | undefined;

  /** `tell` is told how long the line is, in points; undefined once it is drawn. */
  constructor(
    private readonly inner: Gesture,
    private readonly edge: Edge,
    private readonly tell: (length: number | undefined) => void,
  ) {}

  move(samples: readonly Sample[], ahead: readonly Sample[]): void {
    const last = samples.at(-1);
    if (last) {
      this.from ??= alongEdge(this.edge, samples[0]);
      this.tell(Math.abs(alongEdge(this.edge, last) - this.from));
    }
    this.inner.move(samples.map(this.onEdge), ahead.map(this.onEdge));
  }

  end(): Effect[] {
    this.tell(undefined);
    return this.inner.end();
  }

  cancel(): void {
    this.tell(undefined);
    this.inner.cancel();
  }

  private readonly onEdge = (sample: Sample): Sample => ({
    ...sample,
    ...onEdge(this.edge, sample),
  });
}
