import type { KitSlot } from '@stylet/core/api';
import { newId, strokeStyleSchema, type Effect, type ShapeAnnotation } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import { paint } from '@stylet/core/paint';
import { adjusted, isClosed, type Shape } from '@stylet/core/shapes';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import { FILLING } from '../../platform/selection/selection-actions';
import type { Placement } from '../../platform/feature/tools';
import type { Meaning } from '../../platform/input/meaning';

/** The shape a held stroke was meant to be; it follows the pen until that is lifted. */
export class ShapeMeaning implements Meaning {
  private now: Shape;

  constructor(
    private readonly recognised: Shape,
    private readonly from: Sample,
    private readonly slot: KitSlot,
    private readonly placement: Placement,
    private readonly live: LiveSurface,
  ) {
    this.now = recognised;
  }

  show(): void {
    this.live.showWhole(paint(this.annotation()));
  }

  move(samples: readonly Sample[]): boolean {
    this.now = adjusted(this.recognised, this.from, samples[samples.length - 1]);
    this.show();
    return true;
  }

  end(): Effect[] {
    this.live.flush?.();
    return [{ type: 'annotation.add', annotation: this.annotation() }];
  }

  hide(): void {
    this.live.clear();
  }

  private annotation(): ShapeAnnotation {
    return shapeOf(this.slot, this.placement, this.now);
  }
}

/** A new shape of a slot. */
export function shapeOf(slot: KitSlot, placement: Placement, shape: Shape): ShapeAnnotation {
  const now = new Date().toISOString();
  return {
    kind: 'shape',
    id: newId(),
    ...placement,
    ...strokeStyleSchema.parse(slot),
    form: shape.form,
    points: [...shape.points],
    bends: [...(shape.bends ?? [])],
    fill: slot.fillsShapes && isClosed(shape) ? FILLING : 0,
    color: slot.color,
    opacity: slot.opacity,
    created: now,
    modified: now,
  };
}
