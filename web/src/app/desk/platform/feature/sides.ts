import type { Point } from '@stylet/core/geometry';

/** What is selected has sides that are dragged in a way of its own: the left and the right one, and no others. */
export interface Sides {
  /** To a point of the page. */
  drag(side: 'e' | 'w', to: Point): void;
  /** It is let go, and stays so. */
  drop(): void;
  cancel(): void;
}
