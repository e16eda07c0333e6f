import { Nearby, unite, type Box } from '../geometry/index';
import type { Annotation } from './annotation';

/**
 * How far strokes of one piece of writing lie apart at most, along and across the lines: as parts of how
 * high the strokes of a page are (their median), within bounds in points.
 */
const ALONG = { part: 2.2, least: 8, most: 36 };
const ACROSS = { part: 0.4, least: 3, most: 8 };

/** Strokes and shapes that lie near each other, and the box round them. */
export interface Writing {
  readonly annotations: readonly Annotation[];
  readonly box: Box;
}

/** The pieces of writing among annotations that have a box, from the top of the page down. */
export function writingsAmong(
  annotations: readonly Annotation[],
  boxOf: (annotation: Annotation) => Box | undefined,
): Writing[] {
  const items = annotations.flatMap((annotation) => {
    const box = boxOf(annotation);
    return box ? [{ annotation, box }] : [];
  });
  if (items.length === 0) return [];
  const index = new Nearby(items.map(({ box }) => box));
  const heights = items.map(({ box }) => box.y1 - box.y0).sort((a, b) => a - b);
  const height = heights[Math.floor(heights.length / 2)];
  const [along, across] = [ALONG, ACROSS].map(({ part, least, most }) =>
    Math.min(most, Math.max(least, part * height)),
  );
  const writings: Writing[] = [];
  const taken = new Uint8Array(items.length);
  for (let first = 0; first < items.length; first++) {
    if (taken[first]) continue;
    taken[first] = 1;
    const members = [first];
    // `members` grows while it is gone through: each member brings in what is near it.
    for (const member of members) {
      const { x0, y0, x1, y1 } = items[member].box;
      const reach = { x0: x0 - along, y0: y0 - across, x1: x1 + along, y1: y1 + across };
      for (const near of index.find(reach)) {
        if (taken[near]) continue;
        taken[near] = 1;
        members.push(near);
      }
    }
    writings.push({
      annotations: members.sort((a, b) => a - b).map((i) => items[i].annotation),
      box: members.map((i) => items[i].box).reduce(unite),
    });
  }
  return writings.sort((a, b) => a.box.y0 - b.box.y0 || a.box.x0 - b.box.x0);
}
