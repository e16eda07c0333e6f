import type { KitSlot } from '@stylet/core/api';
import {
  newId,
  strokeStyleSchema,
  type Effect,
  type Ink,
  type Markup,
} from '@stylet/core/document';
import { boxOf, grow, type Box } from '@stylet/core/geometry';
import {
  LineFit,
  fitBar,
  samplesFromBase64,
  strokePieces,
  type Polygon,
  type Sample,
} from '@stylet/core/ink';
import { paint } from '@stylet/core/paint';
import { pageText, rangeBetween, type Line } from '@stylet/core/text';
import type { LiveSurface } from '../pages/live-layer';
import { markEffects } from '../selection/marking';
import type { Gesture } from './gesture';
import { InkGesture, inkOf, type Placement } from './ink-gesture';

/** What a highlighter needs to know of the page it is on. */
export interface Surroundings {
  /** The page's text; undefined while it is still being read. */
  lines(): readonly Line[] | undefined;
  /** The marks on text that are there already. */
  marks(): readonly Markup[];
  /** The strokes near a box, as the polygons of each. */
  strokesNear(box: Box): Iterable<readonly Polygon[]>;
}

/**
 * Highlights. Over text: the words from press to lift. Elsewhere: a bar as high as the writing it
 * covers, or, when the way is not nearly straight or is not to be straightened, the way itself.
 * Whether it is text is settled by where the pen came down.
 */
export class HighlightGesture implements Gesture {
  private readonly samples: Sample[] = [];
  private readonly fit = new LineFit();
  private readonly started = new Date().toISOString();
  /** Draws the way itself, from when it is first to be seen. */
  private free: InkGesture | undefined;

  constructor(
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveSurface,
    private readonly around: Surroundings,
  ) {}

  move(samples: readonly Sample[], ahead: readonly Sample[]): void {
    this.samples.push(...samples);
    for (const sample of samples) this.fit.add(sample);
    const shape = this.markup() ?? this.bar();
    if (shape) {
      if (this.free) this.live.clear();
      this.free = undefined;
      const pieces =
        shape.kind === 'ink'
          ? strokePieces(shape, samplesFromBase64(shape.samples))
          : paint(shape)[0].pieces;
      this.live.showTail(pieces, { color: this.slot.color });
    } else if (this.free) {
      this.free.move(samples, ahead);
    } else {
      this.live.clear();
      this.free = new InkGesture({ ...this.slot, freeform: true }, this.placement, this.live);
      this.free.move(this.samples, ahead);
    }
  }

  end(): Effect[] {
    this.live.flush?.();
    const lines = this.around.lines();
    const markup = this.markup();
    if (lines && markup) return markEffects({ text: pageText(lines) }, markup, this.around.marks());
    const shape = this.bar();
    return shape ? [{ type: 'annotation.add', annotation: shape }] : (this.free?.end() ?? []);
  }

  cancel(): void {
    this.live.clear();
  }

  private markup(): Markup | undefined {
    const lines = this.around.lines();
    const from = this.samples[0];
    const to = this.samples[this.samples.length - 1];
    const range = lines && rangeBetween(pageText(lines), from, to);
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

  private bar(): Ink | undefined {
    if (this.slot.straightens === false) return undefined;
    const rough = this.fit.bar(this.slot.width);
    if (!rough) return undefined;
    const reach = grow(boxOf(rough.from, rough.to), rough.width);
    const bar = fitBar(rough, this.around.strokesNear(reach));
    const style = { ...strokeStyleSchema.parse(this.slot), width: bar.width, freeform: false };
    const ends = [
      { ...this.samples[0], ...bar.from },
      { ...this.samples[this.samples.length - 1], ...bar.to },
    ];
    return inkOf(this.slot, this.placement, style, this.started, ends);
  }
}
