import type { Effect } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import type { Gesture } from '../../platform/input/gesture';
import { regionOf, type RegionDrawn } from '../../platform/input/region';

/** Draws round what is to be snipped. */
export class SnipGesture implements Gesture {
  private readonly way: Point[] = [];

  /** `show` is told the way so far, `snip` the outline (both in page space). */
  constructor(
    private readonly drawn: RegionDrawn,
    private readonly show: (way: readonly Point[]) => void,
    private readonly snip: (outline: readonly Point[]) => void,
  ) {}

  move(samples: readonly Sample[]): void {
    this.way.push(...samples.map(({ x, y }) => ({ x, y })));
    this.show(regionOf(this.way, this.drawn));
  }

  end(): Effect[] {
    this.show([]);
    this.snip(regionOf(this.way, this.drawn));
    return [];
  }

  cancel(): void {
    this.show([]);
  }
}
