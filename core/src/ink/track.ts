import { transform, type Point } from '../geometry/index';
import { nibShape, type NibShape } from './nib-shape';
import type { Sample, Samples } from './samples';
import { sampleAt } from './samples';
import { SAME_PLACE, curveBetween, curveX, curveY } from './spine';
import { centreLine, isBar, isFlat, radiusFor, type StrokeStyle } from './style';

/**
 * A point of a stroke's centre line. Radius of what is drawn around it, in points; 0 where the ink
 * is cut off straight there.
 */
export interface TrackPoint extends Sample {
  readonly radius: number;
}

/**
 * A stroke's centre line as it is drawn, smoothing included, close enough together to be taken as
 * straight in between. What samples carry besides their place is interpolated.
 */
export function trackOf(style: StrokeStyle, samples: Samples): TrackPoint[] {
  const shape = nibShape(style);
  const { knots, end } = knotsOf(style, shape, samples);
  const track: TrackPoint[] = knots.slice(0, 1);
  for (let i = 0; i + 1 < knots.length; i++) {
    const [a, b] = [knots[i], knots[i + 1]];
    const chords = curveBetween(knots[i - 1], a, b, knots[i + 2]);
    for (let k = 1; k < chords; k++) {
      const t = k / chords;
      track.push({ ...mixed(a, b, t), x: curveX(a, b, t), y: curveY(a, b, t) });
    }
    track.push(b);
  }
  // The way on to the raw end is straight, as it is while drawing.
  if (end) track.push(end);
  return shape.isDisc
    ? track
    : track.map((point) => ({ ...point, ...transform(shape.toPage, point) }));
}

/** The point at `t` of 0–1 between two points of a track. */
export function mixed(a: TrackPoint, b: TrackPoint, t: number): TrackPoint {
  const mix = (from: number, to: number): number => from + (to - from) * t;
  return {
    x: mix(a.x, b.x),
    y: mix(a.y, b.y),
    pressure: mix(a.pressure, b.pressure),
    tiltX: mix(a.tiltX, b.tiltX),
    tiltY: mix(a.tiltY, b.tiltY),
    time: mix(a.time, b.time),
    radius: mix(a.radius, b.radius),
  };
}

/** What the curve goes through, and the nib's place where smoothing has not reached it. */
function knotsOf(
  style: StrokeStyle,
  shape: NibShape,
  samples: Samples,
): { knots: TrackPoint[]; end: TrackPoint | undefined } {
  if (samples.length === 0) return { knots: [], end: undefined };
  const last = sampleAt(samples, samples.length - 1);
  const isCut = isFlat(style);
  const knot = (sample: Sample, at: Point): TrackPoint => ({
    ...sample,
    ...transform(shape.toDisc, at),
    radius: isCut ? 0 : radiusFor(style, sample),
  });
  if (isBar(style)) {
    const ends = samples.length > 1 ? [sampleAt(samples, 0), last] : [last];
    return { knots: ends.map((sample) => knot(sample, sample)), end: undefined };
  }
  const line = centreLine(style);
  const knots: TrackPoint[] = [];
  for (let i = 0; i < samples.length; i++) {
    const sample = sampleAt(samples, i);
    const next = knot(sample, line(sample));
    if (isFarther(knots.at(-1), next)) knots.push(next);
  }
  const end = knot(last, last);
  return { knots, end: isFarther(knots.at(-1), end) ? end : undefined };
}

const isFarther = (from: Point | undefined, to: Point): boolean =>
  !from || Math.hypot(to.x - from.x, to.y - from.y) >= SAME_PLACE;
