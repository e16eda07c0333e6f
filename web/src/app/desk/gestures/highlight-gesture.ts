import { newId, type Effect, type Markup } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import { paint } from '@stylet/core/paint';
import { lineAt, rangeBetween, type Line } from '@stylet/core/text';
import type { KitSlot } from '@stylet/core/api';
import type { LiveLayer } from '../pages/live-layer';
import type { Gesture } from './gesture';
import { InkGesture, type Placement } from './ink-gesture';

/**
 * Highlights: over text, the words from press to lift; elsewhere a straight bar. Which of the two
 * is settled by where the pen came down.
 */
export class HighlightGesture implements Gesture {
  private readonly samples: Sample[] = [];
  private readonly bar: InkGesture;

  /** `lines` is undefined while the page's text is still being read. */
  constructor(
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveLayer,
    private readonly lines: () => readonly Line[] | undefined,
  ) {
    this.bar = new InkGesture(slot, placement, live);
  }

  move(samples: readonly Sample[]): void {
    this.samples.push(...samples);
    this.bar.move(samples);
    const markup = this.markup();
    if (markup) this.live.showTail(paint(markup)[0].polygons, this.slot.color);
  }

  end(): Effect[] {
    const markup = this.markup();
    return markup ? [{ type: 'annotation.add', annotation: markup }] : this.bar.end();
  }

  cancel(): void {
    this.live.clear();
  }

  private markup(): Markup | undefined {
    const lines = this.lines();
    const from = this.samples[0];
    const to = this.samples[this.samples.length - 1];
    if (!lines || !lineAt(lines, from)) return undefined;
    const range = rangeBetween(lines, from, to);
    if (!range) return undefined;
    const now = new Date().toISOString();
    return {
      kind: 'highlight',
      id: newId(),
      ...this.placement,
      color: this.slot.color,
      opacity: this.slot.opacity,
      created: now,
      modified: now,
      ...range,
    };
  }
}
