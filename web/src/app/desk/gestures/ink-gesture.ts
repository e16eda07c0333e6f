import { newId, type Effect, type Ink } from '@stylet/core/document';
import { Stroke, quantise, samplesOf, samplesToBase64, type Sample } from '@stylet/core/ink';
import type { KitSlot } from '@stylet/core/api';
import type { LiveLayer } from '../pages/live-layer';
import type { Gesture } from './gesture';

/** What every new annotation of a gesture needs to know. */
export interface Placement {
  readonly pageId: string;
  readonly order: string;
  readonly author: string;
}

/** Draws a stroke: each sample is on the canvas before the next one comes. */
export class InkGesture implements Gesture {
  private readonly samples: Sample[] = [];
  private readonly stroke: Stroke;
  private readonly started = new Date().toISOString();

  constructor(
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveLayer,
  ) {
    this.stroke = new Stroke(slot);
  }

  move(samples: readonly Sample[]): void {
    const settledBefore = this.stroke.settledPieces().length;
    for (const raw of samples) {
      const start = this.samples[0]?.time ?? raw.time;
      this.samples.push(raw);
      this.stroke.add(quantise({ ...raw, time: raw.time - start }));
    }
    this.live.settle(this.stroke.settledPieces().slice(settledBefore), this.slot.color);
    this.live.showTail(this.stroke.tail(), this.slot.color);
  }

  end(): Effect[] {
    return [{ type: 'annotation.add', annotation: this.annotation() }];
  }

  cancel(): void {
    this.live.clear();
  }

  private annotation(): Ink {
    const now = new Date().toISOString();
    const { instrument, color, width, smoothing, opacity } = this.slot;
    return {
      kind: 'ink',
      id: newId(),
      ...this.placement,
      instrument,
      color,
      width,
      smoothing,
      opacity,
      created: this.started,
      modified: now,
      samples: samplesToBase64(samplesOf(this.samples)),
    };
  }
}
