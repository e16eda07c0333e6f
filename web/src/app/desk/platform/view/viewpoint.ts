import type { Page } from '@stylet/core/api';
import type { Destination } from '@stylet/core/pdf';
import { GAP, pageAt, pageLookedAt, type Layout, type Part } from '../paper/layout';

/** A place one has been: a page and how far down it, as a share of its height. */
export interface Viewpoint {
  readonly pageIndex: number;
  readonly share: number;
}

/** Where one is: what lies at the upper end of the part that shows. */
export function viewpointOf(layout: Layout, part: Part): Viewpoint {
  if (!layout.isAcross) return viewpointAt(layout, part.top + GAP);
  const pageIndex = pageLookedAt(layout, part);
  const page = layout.pages[pageIndex];
  const down = page ? (part.top + GAP - page.top) / page.height : 0;
  return { pageIndex, share: Math.max(0, down) };
}

/** The first and the last place that shows; across, shares count from the left. */
export function endsOf(layout: Layout, part: Part): readonly [Viewpoint, Viewpoint] {
  const { left, top, width, height } = part;
  if (!layout.isAcross)
    return [viewpointAt(layout, top + GAP), viewpointAt(layout, top + height - GAP)];
  return [viewpointAcross(layout, left + GAP), viewpointAcross(layout, left + width - GAP)];
}

/** The place at a height of the column of pages. */
function viewpointAt(layout: Layout, y: number): Viewpoint {
  const pageIndex = pageAt(layout, y);
  const page = layout.pages[pageIndex];
  return { pageIndex, share: page ? (y - page.top) / page.height : 0 };
}

function viewpointAcross(layout: Layout, x: number): Viewpoint {
  const pageIndex = pageAt(layout, 0, x);
  const page = layout.pages[pageIndex];
  const share = page ? (x - page.left) / page.width : 0;
  return { pageIndex, share: Math.min(1, Math.max(0, share)) };
}

/** How far down a page, as shown, a destination is. */
export function shareDown(
  { x = 0, y = 0 }: Destination,
  { width, height, rotation }: Pick<Page, 'width' | 'height' | 'rotation'>,
): number {
  switch (rotation) {
    case 0:
      return y / height;
    case 90:
      return x / width;
    case 180:
      return 1 - y / height;
    case 270:
      return 1 - x / width;
  }
}
