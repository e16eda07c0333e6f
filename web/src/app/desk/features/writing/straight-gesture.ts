import type { KitSlot } from '@stylet/core/api';
import type { Effect } from '@stylet/core/document';
import { distance } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { paint } from '@stylet/core/paint';
import { levelled, type Shape } from '@stylet/core/shapes';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import type { Gesture } from '../../platform/input/gesture';
import type { Placement } from '../../platform/feature/tools';
import { shapeOf } from './shape-meaning';

/** What is shorter, in points, is a slip of the pen. */
const LEAST = 0.5;

/** A straight line from press to lift, level where it is nearly so. */
export class StraightGesture implements Gesture {
  private from: Sample | undefined;
  private to: Sample | undefined;

  constructor(
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveSurface,
  ) {}

  move(samples: readonly Sample[]): void {
    this.from ??= samples[0];
    this.to = samples.at(-1) ?? this.to;
    const line = this.line();
    if (line) this.live.showWhole(paint(shapeOf(this.slot, this.placement, line)));
  }

  end(): Effect[] {
    this.live.flush?.();
    const line = this.line();
    if (!line) return [];
    return [{ type: 'annotation.add', annotation: shapeOf(this.slot, this.placement, line) }];
  }

  cancel(): void {
    this.live.clear();
  }

  private line(): Shape | undefined {
    const { from, to } = this;
    if (!from || !to || distance(from, to) < LEAST) return undefined;
    return { form: 'line', points: levelled(from, to) };
  }
}
