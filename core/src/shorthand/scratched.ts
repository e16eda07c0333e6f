import { enclosedBy, isErasable, type Annotation } from '../document/index';
import { grow, type Point } from '../geometry/index';
import { polygonBounds, type Polygon } from '../ink/index';
import { hullOf } from './hull';
import { isScratchOut } from './scratch-out';

/** A way of more points than this is no scratch. */
const LONGEST = 1600;
/** Share of an annotation a scratch has to cover to strike it out. */
const COVERED = 0.55;
/** How far what is struck out may stand out of the scratch on either side, in points. */
const ROOM = 2.5;

/** What a stroke (page space) strikes out of the annotations of its page; none when it is ink. */
export function scratched(
  way: readonly Point[],
  annotations: readonly Annotation[],
  outlinesOf: (annotation: Annotation) => readonly Polygon[],
): Annotation[] {
  if (way.length > LONGEST || !isScratchOut(way)) return [];
  const hull = hullOf(way);
  if (!hull) return [];
  const written = annotations.filter((annotation) => isErasable(annotation, 'both'));
  return enclosedBy(widened(hull), written, { outlinesOf, share: COVERED });
}

/** A polygon a little larger than it is, about the middle of its box. */
function widened(polygon: Polygon): Polygon {
  const box = polygonBounds([polygon])!;
  const outer = grow(box, ROOM);
  const scale = {
    x: (outer.x1 - outer.x0) / Math.max(box.x1 - box.x0, 0.01),
    y: (outer.y1 - outer.y0) / Math.max(box.y1 - box.y0, 0.01),
  };
  const middle = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  return polygon.map((value, i) =>
    i % 2 === 0 ? middle.x + scale.x * (value - middle.x) : middle.y + scale.y * (value - middle.y),
  );
}
