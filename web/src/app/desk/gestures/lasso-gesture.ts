import { enclosedBy, type Annotation, type Effect } from '@stylet/core/document';
import { boxOf, distance, grow, type Point } from '@stylet/core/geometry';
import { hitsPolygons, type Sample } from '@stylet/core/ink';
import { polygonsOf } from '../pages/drawing';
import { indexFor } from '../pages/page-index';
import type { Gesture } from './gesture';

/** Way and reach of a tap, in CSS pixels. */
const TAP = 5;
const REACH = 7;

/** Draws round what is to be selected; a tap takes the uppermost thing it hits. */
export class LassoGesture implements Gesture {
  private readonly way: Point[] = [];

  /** `select` is told what was selected, `show` the way so far (page space). */
  constructor(
    private readonly annotations: readonly Annotation[],
    private readonly pointsPerPixel: number,
    private readonly select: (ids: readonly string[]) => void,
    private readonly show: (way: readonly Point[]) => void,
  ) {}

  move(samples: readonly Sample[]): void {
    this.way.push(...samples.map(({ x, y }) => ({ x, y })));
    this.show(this.way);
  }

  end(): Effect[] {
    this.show([]);
    const [first] = this.way;
    if (!first) return [];
    const isTap = this.way.every((p) => distance(p, first) < TAP * this.pointsPerPixel);
    const found = isTap ? this.at(first) : this.within();
    this.select(found.map(({ id }) => id));
    return [];
  }

  cancel(): void {
    this.show([]);
  }

  private at(point: Point): Annotation[] {
    const radius = REACH * this.pointsPerPixel;
    const near = indexFor(this.annotations).find(grow(boxOf(point, point), radius));
    const hit = near
      .sort((a, b) => b - a)
      .map((i) => this.annotations[i])
      .find(
        (a) =>
          a.kind === 'foreign' || hitsPolygons(polygonsOf(a), { from: point, to: point, radius }),
      );
    return hit ? [hit] : [];
  }

  private within(): Annotation[] {
    const region = Float64Array.from(this.way.flatMap(({ x, y }) => [x, y]));
    return enclosedBy(region, this.annotations, polygonsOf);
  }
}
