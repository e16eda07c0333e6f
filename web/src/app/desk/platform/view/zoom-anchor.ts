import type { Point } from '@stylet/core/geometry';
import { pageAt, type Layout, type Placed } from '../paper/layout';

/** How far a view is scrolled, and how far its pages stand in from the left; CSS pixels. */
export interface Scrolled {
  readonly left: number;
  readonly top: number;
  readonly inset: number;
}

/** A point of a page at a zoom, from its top left in CSS pixels, and where in the view it was. */
interface Held {
  readonly index: number;
  readonly placed: Placed;
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
  readonly about: Point;
}

/**
 * What a zoom is about. While one zooms at one point it is what was there at first, even where the ends of
 * the document have not let that stay there; however long that takes: on a slow machine, or key by key.
 */
export class ZoomAnchor {
  private held: Held | undefined;
  /** Where the view was left: one that has been scrolled since holds nothing. */
  private left: Omit<Scrolled, 'inset'> | undefined;

  /** Holds what lies at `about`, a point of the view. */
  hold(layout: Layout, about: Point, { left, top, inset }: Scrolled): void {
    const { held } = this;
    const isSame =
      held &&
      Math.hypot(held.about.x - about.x, held.about.y - about.y) < 2 &&
      this.left?.left === left &&
      this.left.top === top;
    if (isSame) return;
    const [x, y] = [left + about.x - inset, top + about.y];
    const index = pageAt(layout, y, x);
    const placed = layout.pages[index];
    const { zoom } = layout;
    this.held = { index, placed, zoom, x: x - placed.left, y: y - placed.top, about };
    this.left = undefined;
  }

  /** Where to scroll for what is held to lie at `about` in another layout. */
  scrollFor(layout: Layout, about: Point, inset: number): Omit<Scrolled, 'inset'> {
    const { index, placed, zoom, x, y } = this.held!;
    const factor = layout.zoom / zoom;
    const page = layout.pages[index];
    return {
      left: inset + page.left + stretched(x, placed.width, factor) - about.x,
      top: page.top + stretched(y, placed.height, factor) - about.y,
    };
  }

  /** Where the view has come to: the ends of the document may not have let it scroll all the way. */
  leave(left: number, top: number): void {
    this.left = { left, top };
  }

  drop(): void {
    this.held = undefined;
    this.left = undefined;
  }
}

/** Where a length from a page's edge lies when the page has grown: gaps do not grow with it. */
function stretched(length: number, size: number, factor: number): number {
  if (length < 0) return length;
  return length <= size ? length * factor : size * factor + (length - size);
}
