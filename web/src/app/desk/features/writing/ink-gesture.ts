import type { KitSlot } from '@stylet/core/api';
import { strokeStyleSchema, type Effect, type InkStyle } from '@stylet/core/document';
import { Stroke, quantise, type Sample } from '@stylet/core/ink';
import type { LiveInk, LiveSurface } from '../../platform/paper/live-canvas';
import type { Placement } from '../../platform/feature/tools';
import { inkOf } from '../../platform/input/ink-of';
import type { Gesture } from '../../platform/input/gesture';

/** Draws a stroke: each sample is on the canvas before the next one comes. */
export class InkGesture implements Gesture {
  private readonly samples: Sample[] = [];
  private readonly stroke: Stroke;
  private readonly style: InkStyle;
  private readonly ink: LiveInk;
  private readonly started = new Date().toISOString();

  constructor(
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveSurface,
  ) {
    this.style = strokeStyleSchema.parse(slot);
    this.ink = { color: slot.color, darkens: slot.darkens };
    this.stroke = new Stroke(this.style);
  }

  move(samples: readonly Sample[], ahead: readonly Sample[]): void {
    const settledBefore = this.stroke.settledPieces().length;
    for (const raw of samples) {
      const start = this.samples[0]?.time ?? raw.time;
      this.samples.push(raw);
      this.stroke.add(quantise({ ...raw, time: raw.time - start }));
    }
    this.live.settle(this.stroke.settledPieces().slice(settledBefore), this.ink);
    this.live.showTail(this.stroke.tail(ahead), this.ink);
  }

  end(): Effect[] {
    this.live.flush?.();
    const { slot, placement, style, started, samples } = this;
    return [
      { type: 'annotation.add', annotation: inkOf(slot, placement, style, started, samples) },
    ];
  }

  cancel(): void {
    this.live.clear();
  }
}
