import fc from 'fast-check';
import { distanceToSegment, transform } from '../geometry/index';
import { nibShape } from './nib-shape';
import { cutStroke, type Swipe } from './cut';
import { sampleAt, samplesOf, type Sample, type Samples } from './samples';
import type { StrokeStyle } from './style';
import { trackOf, type TrackPoint } from './track';

const style = (change: Partial<StrokeStyle> = {}): StrokeStyle => ({
  instrument: 'fineliner',
  width: 1,
  smoothing: 0,
  ...change,
});
const sample = (x: number, y: number, time: number, pressure = 0.5): Sample => ({
  x,
  y,
  pressure,
  tiltX: 0,
  tiltY: 0,
  time,
});
const coordinate = fc.double({ min: 0, max: 60, noNaN: true });
const path = fc
  .array(fc.tuple(coordinate, coordinate, fc.double({ min: 0, max: 1, noNaN: true })), {
    minLength: 1,
    maxLength: 14,
  })
  .map((points) => samplesOf(points.map(([x, y, pressure], i) => sample(x, y, i * 8, pressure))));
const swipe: fc.Arbitrary<Swipe> = fc
  .tuple(
    coordinate,
    coordinate,
    coordinate,
    coordinate,
    fc.double({ min: 0.1, max: 12, noNaN: true }),
  )
  .map(([ax, ay, bx, by, radius]) => ({ from: { x: ax, y: ay }, to: { x: bx, y: by }, radius }));

/** How far a disc of the line lies outside what the eraser covered; negative when they touch. */
const clearance = (point: TrackPoint, swipes: readonly Swipe[]): number =>
  Math.min(...swipes.map((s) => distanceToSegment(point, s.from, s.to) - s.radius - point.radius));

/** Distance of a point from a line. */
function away(p: TrackPoint, track: readonly TrackPoint[]): number {
  let nearest = distanceToSegment(p, track[0], track[0]);
  for (let i = 0; i + 1 < track.length; i++)
    nearest = Math.min(nearest, distanceToSegment(p, track[i], track[i + 1]));
  return nearest;
}

/** Quantising moves cut ends and pressures a little. */
const SLACK = 0.03;

/** A part as it is drawn after having been stored. */
const stored = (ink: StrokeStyle, part: TrackPoint[]): TrackPoint[] =>
  trackOf({ ...ink, smoothing: 0 }, samplesOf(part));

const list = (samples: Samples): Sample[] =>
  Array.from({ length: samples.length }, (_, i) => sampleAt(samples, i));

test.each(['fineliner', 'nib', 'highlighter'] as const)(
  'of a %s, what survives lies outside the eraser and what is gone touched it',
  (instrument) => {
    fc.assert(
      fc.property(
        path,
        fc.array(swipe, { minLength: 1, maxLength: 4 }),
        fc.constantFrom(0, 0.5),
        (samples, swipes, smoothing) => {
          const ink = style({ instrument, smoothing });
          const before = trackOf(ink, samples);
          const kept = cutStroke(ink, samples, swipes);
          const after = kept ? kept.map((piece) => stored(ink, piece)) : [before];
          for (const point of after.flat())
            if (clearance(point, swipes) < -SLACK) throw new Error('ink is left under the eraser');
          for (const point of before) {
            const survives = after.some((track) => away(point, track) < 0.1);
            if (!survives && clearance(point, swipes) > SLACK)
              throw new Error('ink is gone that was not touched');
          }
        },
      ),
      { numRuns: 100, endOnFailure: true },
    );
  },
);

/** The edge of a broad nib at a point, as points around it. */
const edgeAt = (ink: StrokeStyle, point: TrackPoint): { x: number; y: number }[] => {
  const { toPage } = nibShape(ink);
  return Array.from({ length: 240 }, (_, k) => {
    const angle = (2 * Math.PI * k) / 240;
    const { x, y } = transform(toPage, { x: Math.cos(angle), y: Math.sin(angle) });
    return { x: point.x + point.radius * x, y: point.y + point.radius * y };
  });
};

/** A long swipe that just passes a nib: its side is none of a few directions. */
const passing: [Samples, Swipe, number] = [
  samplesOf([sample(60, 0, 0, 0), sample(0, 0, 8, 0), sample(0, 0, 16, 0), sample(60, 60, 24, 0)]),
  { from: { x: 1.3547869638968817, y: 0 }, to: { x: 0, y: 60 }, radius: 0.47637040024183297 },
  1,
];

test('a broad edge is cut where its own shape touches the eraser', () => {
  fc.assert(
    fc.property(path, swipe, fc.integer({ min: 0, max: 180 }), (samples, over, angle) => {
      const ink = style({ instrument: 'broadEdge', width: 8, angle });
      const before = trackOf(ink, samples);
      const after = cutStroke(ink, samples, [over]) ?? [before];
      const { toDisc } = nibShape(ink);
      /** How far the nib is from the eraser; negative when they overlap. */
      const gap = (point: TrackPoint): number => {
        const reach = (p: { x: number; y: number }): number =>
          distanceToSegment(p, over.from, over.to) - over.radius;
        // An eraser that is smaller than the nib may lie within it.
        const [middle, from, to] = [point, over.from, over.to].map((p) => transform(toDisc, p));
        if (distanceToSegment(middle, from, to) < point.radius) return -1;
        return Math.min(reach(point), ...edgeAt(ink, point).map(reach));
      };
      for (const point of after.flat())
        if (gap(point) < -SLACK) throw new Error('ink is left under the eraser');
      for (const point of before) {
        const survives = after.some((part) => away(point, part) < 0.1);
        if (!survives && gap(point) > 0.1) throw new Error('ink is gone that was not touched');
      }
    }),
    { numRuns: 60, endOnFailure: true, examples: [passing] },
  );
});

test('joined again, the parts and the gap between them make the whole line', () => {
  const samples = samplesOf(
    Array.from({ length: 41 }, (_, i) => sample(i * 2, 20 + 6 * Math.sin(i / 4), i * 4, i / 40)),
  );
  const across: Swipe = { from: { x: 40, y: 0 }, to: { x: 40, y: 60 }, radius: 3 };
  const pieces = cutStroke(style({ instrument: 'nib' }), samples, [across])!;
  expect(pieces).toHaveLength(2);
  const [left, right] = pieces;
  // All samples that were not touched are there still, and only two cut ends are new.
  const old = new Set(list(samples).map(({ x, y, pressure }) => `${x} ${y} ${pressure}`));
  const known = (part: Sample[]): number =>
    part.filter(({ x, y, pressure }) => old.has(`${x} ${y} ${pressure}`)).length;
  const untouched = list(samples).filter(({ x }) => x < 36 || x > 44).length;
  expect(known(left) + known(right)).toBeGreaterThanOrEqual(untouched);
  // Widths and times go on over the gap as they did before.
  const cut = left[left.length - 1];
  expect(cut.pressure).toBeCloseTo(cut.x / 80, 1);
  expect(right[0].time).toBeCloseTo(right[0].x * 2, -1);
});

/** Handwriting as pens report it: samples at 240 Hz, a fraction of a millimetre apart. */
const scribble = fc
  .tuple(fc.double({ min: 2, max: 9, noNaN: true }), fc.double({ min: 3, max: 20, noNaN: true }))
  .map(([wide, high]) =>
    samplesOf(
      Array.from({ length: 150 }, (_, i) =>
        sample(10 + i * 0.3 + wide * Math.sin(i / 9), 30 + high * Math.sin(i / 7), i * 4),
      ),
    ),
  );

test('a cut leaves the rest of the line where it was', () => {
  fc.assert(
    fc.property(scribble, swipe, fc.constantFrom(0, 0.3), (samples, over, smoothing) => {
      const ink = style({ smoothing });
      const before = trackOf(ink, samples);
      for (const piece of cutStroke(ink, samples, [over]) ?? []) {
        for (const p of stored(ink, piece)) {
          // A quarter of the thinnest pen's width.
          if (away(p, before) > 0.07) throw new Error('the line has moved');
        }
      }
    }),
    { numRuns: 60, endOnFailure: true },
  );
});

test('a stroke that is not touched is left alone; one that is covered goes whole', () => {
  const samples = samplesOf([sample(0, 0, 0), sample(10, 0, 8), sample(20, 0, 16)]);
  const far: Swipe = { from: { x: 0, y: 30 }, to: { x: 20, y: 30 }, radius: 5 };
  expect(cutStroke(style(), samples, [far])).toBeUndefined();
  const over: Swipe = { from: { x: -5, y: 0 }, to: { x: 25, y: 0 }, radius: 5 };
  expect(cutStroke(style(), samples, [over])).toEqual([]);
  const dot = samplesOf([sample(3, 3, 0)]);
  expect(cutStroke(style(), dot, [over])).toEqual([]);
  expect(cutStroke(style(), dot, [far])).toBeUndefined();
});

// A bar has flat ends, so it is cut where the eraser is; round ink keeps its round end clear of it.
test('the cut is at the eraser’s edge', () => {
  const samples = samplesOf([sample(0, 0, 0), sample(100, 0, 100)]);
  const at50: Swipe = { from: { x: 50, y: -20 }, to: { x: 50, y: 20 }, radius: 5 };
  const ends = (ink: StrokeStyle): number[] =>
    cutStroke(ink, samples, [at50])!
      .flatMap((part) => [part[0].x, part[part.length - 1].x])
      .map((x) => Math.round(x * 1e6) / 1e6);
  expect(ends(style({ instrument: 'highlighter', width: 8 }))).toEqual([0, 45, 55, 100]);
  expect(ends(style({ width: 8 }))).toEqual([0, 41, 59, 100]);
});
