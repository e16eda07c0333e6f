import type { Lasso } from '@stylet/core/api';
import { enclosedBy, sortOf, type Annotation, type Effect } from '@stylet/core/document';
import { distance, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { polygonsOf } from '../pages/drawing';
import { indexFor, uppermostAt } from '../pages/page-index';
import type { Gesture } from './gesture';
import { regionOf } from './region';

/** Way and reach of a tap, in CSS pixels. */
const TAP = 5;
const REACH = 7;

/** What a lasso needs to know, and whom it tells. */
export interface LassoTarget {
  readonly annotations: readonly Annotation[];
  readonly pointsPerPixel: number;
  select(ids: readonly string[]): void;
  /** Shows the way so far (page space). */
  show(way: readonly Point[]): void;
}

/** Draws round what is to be selected; a tap takes the uppermost thing it hits. */
export class LassoGesture implements Gesture {
  private readonly way: Point[] = [];

  constructor(
    private readonly settings: Lasso,
    private readonly target: LassoTarget,
  ) {}

  move(samples: readonly Sample[]): void {
    this.way.push(...samples.map(({ x, y }) => ({ x, y })));
    this.target.show(this.region());
  }

  end(): Effect[] {
    this.target.show([]);
    const [first] = this.way;
    if (!first) return [];
    const reach = TAP * this.target.pointsPerPixel;
    const isTap = this.way.every((p) => distance(p, first) < reach);
    const found = isTap ? this.at(first) : this.within();
    this.target.select(found.map(({ id }) => id));
    return [];
  }

  cancel(): void {
    this.target.show([]);
  }

  private at(point: Point): Annotation[] {
    const { annotations, pointsPerPixel } = this.target;
    const hit = uppermostAt(annotations, point, REACH * pointsPerPixel, (a) =>
      this.settings.sorts.includes(sortOf(a)),
    );
    return hit ? [hit] : [];
  }

  private within(): Annotation[] {
    const { annotations } = this.target;
    const region = Float64Array.from(this.region().flatMap(({ x, y }) => [x, y]));
    return enclosedBy(region, annotations, {
      outlinesOf: polygonsOf,
      index: indexFor(annotations),
      takes: this.settings.takes,
    }).filter((a) => !a.locked && this.settings.sorts.includes(sortOf(a)));
  }

  private region(): readonly Point[] {
    return regionOf(this.way, this.settings.drawn);
  }
}
