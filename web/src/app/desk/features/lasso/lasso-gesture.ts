import type { Lasso } from '@stylet/core/api';
import {
  enclosedBy,
  isEditable,
  sortOf,
  type Annotation,
  type Effect,
} from '@stylet/core/document';
import { distance, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { polygonsOf } from '../../platform/paper/drawing';
import { indexFor, uppermostAt } from '../../platform/paper/page-index';
import type { Gesture } from '../../platform/input/gesture';
import { Hold } from '../../platform/input/hold';
import { regionOf } from '../../platform/input/region';

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
  /** The pen is held still where it came down. */
  held(): void;
}

/** Draws round what is to be selected; a tap takes the uppermost thing it hits, and one that is held asks for the page's menu. */
export class LassoGesture implements Gesture {
  private readonly way: Point[] = [];
  private readonly hold: Hold;
  private isHeld = false;

  constructor(
    private readonly settings: Lasso,
    private readonly target: LassoTarget,
  ) {
    this.hold = new Hold(target.pointsPerPixel, () => this.held());
  }

  move(samples: readonly Sample[]): void {
    if (this.isHeld) return;
    this.way.push(...samples.map(({ x, y }) => ({ x, y })));
    for (const sample of samples) this.hold.at(sample);
    this.target.show(this.region());
  }

  end(): Effect[] {
    this.hold.stop();
    this.target.show([]);
    const [first] = this.way;
    if (!first || this.isHeld) return [];
    const found = this.isTap() ? this.at(first) : this.within();
    this.target.select(found.map(({ id }) => id));
    return [];
  }

  cancel(): void {
    this.hold.stop();
    this.target.show([]);
  }

  private held(): void {
    if (this.isHeld || !this.isTap()) return;
    this.isHeld = true;
    this.target.held();
  }

  private isTap(): boolean {
    const reach = TAP * this.target.pointsPerPixel;
    return this.way.every((p) => distance(p, this.way[0]) < reach);
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
    }).filter((a) => isEditable(a) && this.settings.sorts.includes(sortOf(a)));
  }

  private region(): readonly Point[] {
    return regionOf(this.way, this.settings.drawn);
  }
}
