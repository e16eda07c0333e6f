import type { KitSlot } from '@stylet/core/api';
import {
  isMarkup,
  newId,
  strokeStyleSchema,
  type Annotation,
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
import { pageText, type Line } from '@stylet/core/text';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import { markEffects } from '../../platform/selection/mark-effects';
import type { Gesture } from '../../platform/input/gesture';
import type { Placement } from '../../platform/feature/tools';
import { inkOf } from '../../platform/input/ink-of';
import { InkGesture } from './ink-gesture';

/** What a highlighter needs to know of the page it is on. */
export interface Surroundings {
  /** The page's text; undefined while it is still being read. */
  lines(): readonly Line[] | undefined;
  /** The page's text when it has been read; undefined when that takes too long. */
  linesRead(): Promise<readonly Line[] | undefined>;
  /** What is on the page now. */
  annotations(): readonly Annotation[];
  /** Carries out what becomes of what the gesture did, as part of the same step. */
  amend(effects: readonly Effect[]): void;
  /** The strokes near a box, as the polygons of each. */
  strokesNear(box: Box): Iterable<readonly Polygon[]>;
}

/**
 * Highlights. Over text: the words from press to lift. Elsewhere: a bar as high as the writing it
 * covers, or, when the way is not nearly straight or is not to be straightened, the way itself.
 * Whether it is text is settled by where the pen came down. What was drawn before the text was read stays as it was drawn
 * until it is.
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
    const lines = this.around.lines();
    const shape = (lines && this.markup(lines)) ?? this.bar();
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
    const marks = lines && this.marksOn(lines);
    if (marks) return marks;
    const shape = this.bar();
    const drawn: Effect[] = shape
      ? [{ type: 'annotation.add', annotation: shape }]
      : (this.free?.end() ?? []);
    if (!lines) void this.markWhenRead(drawn);
    return drawn;
  }

  cancel(): void {
    this.live.clear();
  }

  /** Turns what was drawn into a mark on text, unless it has been changed meanwhile. */
  private async markWhenRead(drawn: readonly Effect[]): Promise<void> {
    const lines = await this.around.linesRead();
    if (!lines) return;
    const now = this.around.annotations();
    const marks = this.marksOn(lines);
    const removals: Effect[] = [];
    for (const effect of drawn) {
      if (effect.type !== 'annotation.add') continue;
      const { id, pageId, modified } = effect.annotation;
      if (!now.some((other) => other.id === id && other.modified === modified)) return;
      removals.push({ type: 'annotation.remove', pageId, annotationId: id });
    }
    if (marks && removals.length > 0) this.around.amend([...removals, ...marks]);
  }

  private marksOn(lines: readonly Line[]): Effect[] | undefined {
    const markup = this.markup(lines);
    const others = this.around.annotations().filter(isMarkup);
    return markup && markEffects({ text: pageText(lines) }, markup, others);
  }

  private markup(lines: readonly Line[]): Markup | undefined {
    const text = pageText(lines);
    const words = text.highlighted(this.samples);
    if (!words) return undefined;
    const now = new Date().toISOString();
    return {
      kind: 'highlight',
      id: newId(),
      ...this.placement,
      color: this.slot.color,
      opacity: this.slot.opacity,
      created: now,
      modified: now,
      ...text.rangeOf(words),
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
