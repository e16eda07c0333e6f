import { boundsOf, distance, distanceToSegment, type Point } from '../geometry/index';
import { arrowIn } from './arrow';
import { AROUND, cornersOf, crossesItself } from './corners';
import { ellipseOfMoments, fitCircle, fitLine } from './fit';
import { regular } from './regular';
import { lengthOf, resampled } from './resample';
import type { Shape } from './shape';

/** What is smaller than this, in points across, is no shape but a dot or a letter's part. */
const LEAST_SIZE = 8;
/** Points a way is looked at by when it is open. */
const ALONG = 48;
/** A line: how far it may stray and how much longer than its chord its way may be, as shares. */
const LINE = { strays: 0.055, longer: 1.1 } as const;
/** Mean distance from an outline, as a share of the size, over which it is not what was meant. */
const MOST_OFF = { polygon: 0.03, ellipse: 0.04 } as const;
/** Distance between its ends, as shares of its length and its size, under which a way is closed. */
const CLOSED = { length: 0.16, size: 0.3 } as const;
/** Share of a way at either end in which the ends may cross and overlap. */
const ENDS = 0.2;
/** An ellipse as round as this is a circle; one as flat as the other is none. */
const CIRCLE = 0.84;
const FLATTEST = 0.12;
const MOST_CORNERS = 8;

/**
 * The shape a stroke was meant to be, straightened; undefined when it is none of those there are.
 * The way is in page space, in the order it was drawn.
 */
export function recogniseShape(drawn: readonly Point[]): Shape | undefined {
  const way = drawn.filter((p, i) => i === 0 || distance(p, drawn[i - 1]) > 0);
  const box = boundsOf(way);
  if (!box || way.length < 3) return undefined;
  const size = Math.hypot(box.x1 - box.x0, box.y1 - box.y0);
  if (size < LEAST_SIZE) return undefined;
  const length = lengthOf(way);
  return lineIn(way, length) ?? closedIn(way, size) ?? arrowIn(resampled(way, ALONG * 2));
}

function lineIn(way: readonly Point[], length: number): Shape | undefined {
  const [first, last] = [way[0], way[way.length - 1]];
  const chord = distance(first, last);
  if (length > LINE.longer * chord) return undefined;
  const points = resampled(way, ALONG);
  if (points.some((p) => distanceToSegment(p, first, last) > LINE.strays * chord)) return undefined;
  const { at, u } = fitLine(points);
  const along = (p: Point): Point => {
    const t = u.x * (p.x - at.x) + u.y * (p.y - at.y);
    return { x: at.x + t * u.x, y: at.y + t * u.y };
  };
  return regular({ form: 'line', points: [along(first), along(last)] });
}

/**
 * A closed stroke as points at equal distances, without what runs past its start; undefined for one
 * that is open, or too small.
 */
export function closedWay(drawn: readonly Point[]): Point[] | undefined {
  const box = boundsOf(drawn);
  const size = box ? Math.hypot(box.x1 - box.x0, box.y1 - box.y0) : 0;
  if (size < LEAST_SIZE) return undefined;
  const way = withoutOverlap(resampled(drawn, AROUND * 2), lengthOf(drawn), size);
  return way && resampled([...way, way[0]], AROUND + 1).slice(0, AROUND);
}

function closedIn(drawn: readonly Point[], size: number): Shape | undefined {
  const closed = closedWay(drawn);
  if (!closed) return undefined;
  const polygon = polygonIn(closed, size);
  const ellipse = ellipseIn(closed, size);
  // Bent sides are meant to be bent: a polygon has to fit clearly better.
  if (polygon && (!ellipse || polygon.off < 0.9 * ellipse.off)) return polygon.shape;
  return ellipse?.shape;
}

/** A closed way without what runs past its start; undefined for one that is open. */
function withoutOverlap(
  way: readonly Point[],
  length: number,
  size: number,
): readonly Point[] | undefined {
  const reach = Math.floor(ENDS * way.length);
  let nearest = Infinity;
  let [from, to] = [0, way.length - 1];
  for (let i = 0; i < reach; i++) {
    for (let k = way.length - 1; k >= way.length - reach; k--) {
      // Of places as near as each other the outermost count: less is cut off.
      const gap =
        distance(way[i], way[k]) + (0.08 * length * (i + way.length - 1 - k)) / way.length;
      if (gap >= nearest) continue;
      nearest = gap;
      [from, to] = [i, k];
    }
  }
  const open = Math.min(CLOSED.length * length, CLOSED.size * size);
  if (distance(way[from], way[to]) > open) return undefined;
  return way.slice(from, to + 1);
}

interface Fitted {
  readonly shape: Shape;
  /** Mean distance from the way, as a share of the size. */
  readonly off: number;
}

function polygonIn(way: readonly Point[], size: number): Fitted | undefined {
  const corners = cornersOf(way);
  if (corners.length < 3 || corners.length > MOST_CORNERS) return undefined;
  if (crossesItself(corners)) return undefined;
  const off = meanOf(way, (p) => {
    let nearest = Infinity;
    for (let i = 0; i < corners.length; i++)
      nearest = Math.min(
        nearest,
        distanceToSegment(p, corners[i], corners[(i + 1) % corners.length]),
      );
    return nearest;
  });
  if (off > MOST_OFF.polygon * size) return undefined;
  const form = corners.length === 3 ? 'triangle' : 'polygon';
  return { shape: regular({ form, points: corners }), off: off / size };
}

function ellipseIn(way: readonly Point[], size: number): Fitted | undefined {
  const ellipse = ellipseOfMoments(way);
  if (!ellipse || ellipse.short < FLATTEST * ellipse.long) return undefined;
  const { centre, long, short, turn } = ellipse;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const off = meanOf(way, (p) => {
    const [x, y] = [p.x - centre.x, p.y - centre.y];
    const [u, v] = [(c * x + s * y) / long, (c * y - s * x) / short];
    // First order: the value of the implicit equation over its slope.
    const value = u * u + v * v - 1;
    return Math.abs(value) / (2 * Math.hypot(u / long, v / short) + 1e-12);
  });
  if (off > MOST_OFF.ellipse * size) return undefined;
  const circle = short > CIRCLE * long ? fitCircle(way) : undefined;
  const shape: Shape = circle
    ? {
        form: 'circle',
        points: [circle.centre, { x: circle.centre.x + circle.radius, y: circle.centre.y }],
      }
    : regular({
        form: 'ellipse',
        points: [
          centre,
          { x: centre.x + long * c, y: centre.y + long * s },
          { x: centre.x - short * s, y: centre.y + short * c },
        ],
      });
  return { shape, off: off / size };
}

function meanOf(way: readonly Point[], value: (p: Point) => number): number {
  let sum = 0;
  for (const p of way) sum += value(p);
  return sum / way.length;
}
