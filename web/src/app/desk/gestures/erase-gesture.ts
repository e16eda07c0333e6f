import type { Annotation, Effect } from '@stylet/core/document';
import { contains, distance, grow, type Point } from '@stylet/core/geometry';
import { hitsPolygons, type Sample } from '@stylet/core/ink';
import { boundsOfAnnotation, polygonsOf } from '../pages/canvas-surface';
import type { Gesture } from './gesture';

/** Removes every annotation the eraser touches, whole; all of them are one step of undo. */
export class EraseGesture implements Gesture {
  private readonly removed = new Map<string, Annotation>();
  private last: Point | undefined;

  /** `radius` in points; `hide` is told what has been touched so far. */
  constructor(
    private readonly annotations: readonly Annotation[],
    private readonly radius: number,
    private readonly hide: (removed: ReadonlyMap<string, Annotation>) => void,
  ) {}

  move(samples: readonly Sample[]): void {
    const before = this.removed.size;
    for (const sample of samples) {
      for (const p of this.wayTo(sample)) this.eraseAt(p);
      this.last = sample;
    }
    if (this.removed.size > before) this.hide(this.removed);
  }

  end(): Effect[] {
    return [...this.removed.values()].map(({ pageId, id }) => ({
      type: 'annotation.remove',
      pageId,
      annotationId: id,
    }));
  }

  cancel(): void {
    this.hide(new Map());
  }

  /** Points close enough to each other that a fast eraser skips nothing. */
  private *wayTo(to: Point): Generator<Point> {
    const from = this.last ?? to;
    const steps = Math.max(1, Math.ceil(distance(from, to) / this.radius));
    for (let i = 1; i <= steps; i++)
      yield {
        x: from.x + ((to.x - from.x) * i) / steps,
        y: from.y + ((to.y - from.y) * i) / steps,
      };
  }

  private eraseAt(p: Point): void {
    for (const annotation of this.annotations) {
      if (!this.removed.has(annotation.id) && this.touches(annotation, p))
        this.removed.set(annotation.id, annotation);
    }
  }

  private touches(annotation: Annotation, p: Point): boolean {
    if (annotation.kind === 'foreign') return contains(annotation.box, p);
    const bounds = boundsOfAnnotation(annotation);
    return (
      bounds !== undefined &&
      contains(grow(bounds, this.radius), p) &&
      hitsPolygons(polygonsOf(annotation), p, this.radius)
    );
  }
}
