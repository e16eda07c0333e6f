import type { Effect } from '@stylet/core/document';
import { distance, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from './gesture';

/** How far a tap may stray, in CSS pixels. */
const STRAYS = 12;

/** Waits for a tap; a way that goes further is none. */
export class TapGesture implements Gesture {
  private isTap = true;

  constructor(
    private readonly at: Point,
    private readonly pointsPerPixel: number,
    private readonly tapped: () => void,
  ) {}

  move(samples: readonly Sample[]): void {
    if (samples.some((p) => distance(p, this.at) > STRAYS * this.pointsPerPixel))
      this.isTap = false;
  }

  end(): Effect[] {
    if (this.isTap) this.tapped();
    return [];
  }

  cancel(): void {
    this.isTap = false;
  }
}
