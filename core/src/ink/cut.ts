import { boxOf, type Box, type Point } from '../geometry/index';
import { nibShape, reachOf, type NibShape } from './nib-shape';
import type { Samples } from './samples';
import type { StrokeStyle } from './style';
import { mixed, trackOf, type TrackPoint } from './track';

/** What an eraser covers on its way from one point to another: a capsule. Radius in points. */
export interface Swipe {
  readonly from: Point;
  readonly to: Point;
  readonly radius: number;
}

/** A stretch of a line's parameter. */
interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** What swipes leave of a stroke: `cutTrack` of its track and nib. */
export function cutStroke(
  style: StrokeStyle,
  samples: Samples,
  swipes: readonly Swipe[],
): TrackPoint[][] | undefined {
  return cutTrack(trackOf(style, samples), swipes, nibShape(style));
}

/**
 * The parts of a stroke's track where the nib, in its place and size, is out of touch of the swipes:
 * cut at the eraser's edge with pressures and times in between. Undefined when the swipes do not
 * touch it at all.
 */
export function cutTrack(
  track: readonly TrackPoint[],
  swipes: readonly Swipe[],
  shape: NibShape,
): TrackPoint[][] | undefined {
  const gone = united(swipes.flatMap((swipe) => [...stretchesIn(track, swipe, shape)]));
  if (gone.length === 0) return undefined;
  return complement(gone, track.length - 1).map((kept) => pointsOf(track, kept));
}

function* stretchesIn(
  track: readonly TrackPoint[],
  swipe: Swipe,
  shape: NibShape,
): Generator<Stretch> {
  const coveredStretch = shape.isDisc ? coveredByDisc : coveredByEdge;
  if (track.length === 1) {
    const [dot] = track;
    if (coveredStretch(dot, dot, swipe, shape)) yield { from: 0, to: 0 };
  }
  const reach = boxOf(swipe.from, swipe.to);
  for (let i = 0; i + 1 < track.length; i++) {
    if (isApart(track[i], track[i + 1], reach, swipe.radius)) continue;
    const covered = coveredStretch(track[i], track[i + 1], swipe, shape);
    if (covered) yield { from: i + covered.from, to: i + covered.to };
  }
}

/** Whether boxes alone show that a stretch is out of the eraser's reach. */
function isApart(a: TrackPoint, b: TrackPoint, reach: Box, radius: number): boolean {
  const far = radius + Math.max(a.radius, b.radius);
  return (
    Math.min(a.x, b.x) - far > reach.x1 ||
    Math.max(a.x, b.x) + far < reach.x0 ||
    Math.min(a.y, b.y) - far > reach.y1 ||
    Math.max(a.y, b.y) + far < reach.y0
  );
}

/**
 * The part of the way from `a` to `b` whose discs touch the capsule, as shares of the way. It is
 * one stretch, for the distance to a convex shape is convex along a line.
 */
function coveredByDisc(a: TrackPoint, b: TrackPoint, swipe: Swipe): Stretch | undefined {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const reach = swipe.radius + a.radius;
  const grows = b.radius - a.radius;
  const parts = [swipe.from, swipe.to].flatMap(({ x, y }): Stretch[] =>
    // |a + t·d − p|² ≤ (reach + t·grows)²
    atMostZero(
      dx * dx + dy * dy - grows * grows,
      2 * (dx * (a.x - x) + dy * (a.y - y) - reach * grows),
      (a.x - x) ** 2 + (a.y - y) ** 2 - reach * reach,
    ),
  );
  const way = Math.hypot(swipe.to.x - swipe.from.x, swipe.to.y - swipe.from.y);
  if (way > 0) {
    const [ux, uy] = [(swipe.to.x - swipe.from.x) / way, (swipe.to.y - swipe.from.y) / way];
    const along = ux * (a.x - swipe.from.x) + uy * (a.y - swipe.from.y);
    const off = uy * (a.x - swipe.from.x) - ux * (a.y - swipe.from.y);
    const [alongStep, offStep] = [ux * dx + uy * dy, uy * dx - ux * dy];
    const strip = [
      below(-alongStep, -along),
      below(alongStep, along - way),
      below(offStep - grows, off - reach),
      below(-offStep - grows, -off - reach),
    ].reduce<Stretch | undefined>(shared, { from: 0, to: 1 });
    if (strip) parts.push(strip);
  }
  if (parts.length === 0) return undefined;
  return {
    from: Math.min(...parts.map((part) => part.from)),
    to: Math.max(...parts.map((part) => part.to)),
  };
}

/** Directions in which a broad edge and the ends of an eraser's way are compared: within 0.02 pt of every direction. */
const DIRECTIONS = Array.from({ length: 128 }, (_, k) => {
  const angle = (2 * Math.PI * k) / 128;
  return { x: Math.cos(angle), y: Math.sin(angle) };
});

/**
 * The same for a nib that is no disc. Two convex shapes touch unless some direction separates them:
 * where their reaches in it together fall short of the distance (the separating axis theorem).
 */
function coveredByEdge(
  a: TrackPoint,
  b: TrackPoint,
  { from, to, radius }: Swipe,
  shape: NibShape,
): Stretch | undefined {
  let covered: Stretch | undefined = { from: 0, to: 1 };
  const narrow = (u: Point): void => {
    const eraser = Math.max(u.x * from.x + u.y * from.y, u.x * to.x + u.y * to.y) + radius;
    const reach = eraser + reachOf(shape, a.radius, u);
    covered = shared(
      covered,
      below(u.x * (b.x - a.x) + u.y * (b.y - a.y), u.x * a.x + u.y * a.y - reach),
    );
  };
  // What is off a little by the side of a long swipe is off by much at its end: its own sides are told just as they are.
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const way = Math.hypot(dx, dy);
  if (way > 0) {
    narrow({ x: -dy / way, y: dx / way });
    narrow({ x: dy / way, y: -dx / way });
  }
  for (const u of DIRECTIONS) {
    if (!covered) return undefined;
    narrow(u);
  }
  return covered;
}

/** Where within 0–1 a·t² + b·t + c ≤ 0. */
function atMostZero(a: number, b: number, c: number): Stretch[] {
  if (Math.abs(a) < 1e-12) {
    const stretch = shared({ from: 0, to: 1 }, below(b, c));
    return stretch ? [stretch] : [];
  }
  const root = b * b - 4 * a * c;
  if (a > 0) {
    if (root < 0) return [];
    const half = Math.sqrt(root);
    const stretch = shared(
      { from: 0, to: 1 },
      { from: (-b - half) / (2 * a), to: (-b + half) / (2 * a) },
    );
    return stretch ? [stretch] : [];
  }
  // The disc grows faster than it moves: what lies between the roots is free.
  if (root <= 0) return [{ from: 0, to: 1 }];
  const half = Math.sqrt(root);
  return [
    shared({ from: 0, to: 1 }, { from: -Infinity, to: (-b + half) / (2 * a) }),
    shared({ from: 0, to: 1 }, { from: (-b - half) / (2 * a), to: Infinity }),
  ].flatMap((stretch) => stretch ?? []);
}

/** Where b·t + c ≤ 0; undefined for nowhere. */
function below(b: number, c: number): Stretch | undefined {
  if (Math.abs(b) < 1e-12) return c <= 0 ? { from: -Infinity, to: Infinity } : undefined;
  return b > 0 ? { from: -Infinity, to: -c / b } : { from: -c / b, to: Infinity };
}

function shared(a: Stretch | undefined, b: Stretch | undefined): Stretch | undefined {
  if (!a || !b) return undefined;
  const from = Math.max(a.from, b.from);
  const to = Math.min(a.to, b.to);
  return from <= to ? { from, to } : undefined;
}

function united(stretches: readonly Stretch[]): Stretch[] {
  const result: Stretch[] = [];
  for (const next of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = result.at(-1);
    if (last && next.from <= last.to)
      result[result.length - 1] = { from: last.from, to: Math.max(last.to, next.to) };
    else result.push(next);
  }
  return result;
}

function complement(gone: readonly Stretch[], end: number): Stretch[] {
  const kept: Stretch[] = [];
  let from = 0;
  for (const stretch of gone) {
    if (stretch.from > from) kept.push({ from, to: stretch.from });
    from = stretch.to;
  }
  if (from < end) kept.push({ from, to: end });
  return kept;
}

/**
 * The points of a stretch of a track and its ends. All of them: through the samples alone the
 * curve would bend anew next to a cut.
 */
function pointsOf(track: readonly TrackPoint[], { from, to }: Stretch): TrackPoint[] {
  const inner = track.slice(Math.floor(from) + 1, Math.ceil(to));
  return [pointAt(track, from), ...inner, ...(to > from ? [pointAt(track, to)] : [])];
}

function pointAt(track: readonly TrackPoint[], at: number): TrackPoint {
  const i = Math.min(Math.floor(at), track.length - 1);
  return i === at || i + 1 === track.length ? track[i] : mixed(track[i], track[i + 1], at - i);
}
