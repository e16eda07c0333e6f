import { Clipper, FillRule } from 'clipper2-ts';
import type { Polygon } from '../ink/index';

/** It counts in whole numbers: thousandths of a point. */
const STEPS = 1000;
/** Outlines of more points are left as they are: the work grows with the crossings, of which a scribble has thousands. */
const MOST_POINTS = 4000;

/**
 * Outlines without what lies within them, such as the loops that the inner side of sharp turns leaves: polygons that
 * cover the same by the nonzero rule, with far fewer points. By B. R. Vatti's algorithm ("A generic solution to polygon
 * clipping", CACM 35(7), 1992), as Clipper2 has it. Points, in any space.
 */
export function united(polygons: readonly Polygon[]): readonly Polygon[] {
  const points = polygons.reduce((sum, { length }) => sum + length / 2, 0);
  if (points > MOST_POINTS) return polygons;
  const paths = Clipper.union(polygons.map(pathOf), FillRule.NonZero);
  return paths.map((path) => Float64Array.from(path.flatMap(({ x, y }) => [x / STEPS, y / STEPS])));
}

function pathOf(polygon: Polygon): { x: number; y: number }[] {
  return Array.from({ length: polygon.length / 2 }, (_, i) => ({
    x: Math.round(polygon[2 * i] * STEPS),
    y: Math.round(polygon[2 * i + 1] * STEPS),
  }));
}
