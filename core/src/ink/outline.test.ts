import fc from 'fast-check';
import { distanceToSegment } from '../geometry/index';
import { windingNumber } from './hit';
import { areaOf, outlineOf, type Polygon } from './outline';
import { quantise, samplesOf, type Sample } from './samples';
import { Spine } from './spine';
import { Stroke, strokePieces, type Piece } from './stroke';
import { instruments, type StrokeStyle } from './style';

const style = (change: Partial<StrokeStyle> = {}): StrokeStyle => ({
  instrument: 'fineliner',
  width: 4,
  smoothing: 0,
  ...change,
});
const at = (x: number, y: number, time: number, pressure = 0.5): Sample => ({
  x,
  y,
  pressure,
  tiltX: 0,
  tiltY: 0,
  time,
});

/** A wandering path with turns of every sharpness, reversals included. */
const path = fc
  .array(
    fc.tuple(
      fc.double({ min: 0, max: 60, noNaN: true }),
      fc.double({ min: 0, max: 60, noNaN: true }),
    ),
    { minLength: 2, maxLength: 12 },
  )
  .map((points) => points.map(([x, y], i) => quantise(at(x, y, i * 8))));

const isInside = (polygons: readonly Polygon[], x: number, y: number): boolean =>
  polygons.some((polygon) => windingNumber(polygon, { x, y }) !== 0);

const strokePolygons = (...given: Parameters<typeof strokePieces>): Polygon[] =>
  strokePieces(...given).map(({ polygon }) => polygon);

function spineOf(points: [number, number, number][]): Spine {
  const spine = new Spine();
  for (const [x, y, r] of points) spine.add(x, y, r);
  spine.complete(...(points[points.length - 1].slice(0, 2) as [number, number]));
  return spine;
}

// The area a disc of radius r sweeps along a segment of length l: 2 r l + π r² (Minkowski sum).
test('a straight stroke has the area of its swept disc', () => {
  const area = Math.abs(
    areaOf(
      outlineOf(
        spineOf([
          [10, 10, 2],
          [50, 40, 2],
        ]),
      ),
    ),
  );
  expect(area).toBeCloseTo(2 * 2 * 50 + Math.PI * 4, 0);
  expect(Math.abs(area - (200 + Math.PI * 4))).toBeLessThan(0.5);
});

test('a dot is a disc', () => {
  expect(Math.abs(areaOf(outlineOf(spineOf([[5, 5, 3]]))))).toBeCloseTo(Math.PI * 9, 0);
});

// Numeric integration: the outline's inside, point by point on a grid, against the distance to the
// flattened centre line.
test('the outline covers the swept discs and nothing else, without holes', () => {
  fc.assert(
    fc.property(path, (samples) => {
      const polygons = strokePolygons(style(), samplesOf(samples));
      const spine = spineOf(samples.map(({ x, y }) => [x, y, 2]));
      for (let y = -6; y < 66; y += 2.3) {
        for (let x = -6; x < 66; x += 2.3) {
          let distance = spine.length === 1 ? Math.hypot(x - spine.x[0], y - spine.y[0]) : Infinity;
          for (let i = 0; i + 1 < spine.length; i++)
            distance = Math.min(
              distance,
              distanceToSegment(
                { x, y },
                { x: spine.x[i], y: spine.y[i] },
                { x: spine.x[i + 1], y: spine.y[i + 1] },
              ),
            );
          if (Math.abs(distance - 2) < 0.06) continue;
          expect({ x, y, inside: isInside(polygons, x, y) }).toEqual({
            x,
            y,
            inside: distance < 2,
          });
        }
      }
    }),
    { numRuns: 60 },
  );
});

test('every stretch of the outline is turned the same way, so that pieces never cancel out', () => {
  fc.assert(
    fc.property(path, (samples) => {
      for (const polygon of strokePolygons(style({ instrument: 'nib' }), samplesOf(samples)))
        expect(areaOf(polygon)).toBeLessThan(0);
    }),
  );
});

test.each(instruments)('what a %s shows while drawing is what it leaves', (instrument) => {
  fc.assert(
    fc.property(
      fc.array(path, { minLength: 1, maxLength: 20 }),
      fc.constantFrom(0, 0.3, 1),
      (parts, smoothing) => {
        const samples = parts.flat().map((sample, i) => ({ ...sample, time: i * 8 }));
        const live = new Stroke(style({ instrument, smoothing }));
        const shownSettled: Piece[] = [];
        for (const sample of samples) {
          live.add(sample);
          for (let i = shownSettled.length; i < live.settledPieces().length; i++)
            shownSettled.push(structuredClone(live.settledPieces()[i]));
        }
        // Settled pieces never changed after they were first shown, and the last frame is the result.
        expect([...shownSettled, ...live.tail()]).toEqual(
          strokePieces(style({ instrument, smoothing }), samplesOf(samples)),
        );
      },
    ),
    { numRuns: 40 },
  );
});

test('without smoothing the line passes through every sample', () => {
  fc.assert(
    fc.property(path, (samples) => {
      const polygons = strokePolygons(style({ width: 0.6 }), samplesOf(samples));
      for (const { x, y } of samples) expect(isInside(polygons, x, y)).toBe(true);
    }),
  );
});

test('the line starts at the first sample, ends at the last, and goes through those between', () => {
  fc.assert(
    fc.property(path, (samples) => {
      const spine = spineOf(samples.map(({ x, y }) => [x, y, 2]));
      let disc = 0;
      for (const { x, y } of samples) {
        // Samples at one place make one disc, which may be the one reached already.
        while (Math.hypot(spine.x[disc] - x, spine.y[disc] - y) > 0.005 && disc < spine.length)
          disc++;
        expect(disc).toBeLessThan(spine.length);
      }
      expect(Math.hypot(spine.x[0] - samples[0].x, spine.y[0] - samples[0].y)).toBe(0);
    }),
  );
});

test('a straight run takes one disc a sample', () => {
  const even = spineOf(Array.from({ length: 30 }, (_, i) => [i * 3, i * 4, 1]));
  expect(even.length).toBe(30);
});

test('smoothed ink still reaches the nib', () => {
  const samples = Array.from({ length: 50 }, (_, i) =>
    quantise(at(i * 4, 20 * Math.sin(i / 5), i * 4)),
  );
  const polygons = strokePolygons(style({ smoothing: 1, width: 1 }), samplesOf(samples));
  const last = samples[samples.length - 1];
  expect(isInside(polygons, last.x - 0.01, last.y)).toBe(true);
});

test('a nib presses wider, a fineliner does not', () => {
  const line = (pressure: number): Sample[] =>
    [0, 1, 2, 3].map((i) => quantise(at(i * 10, 0, i * 8, pressure)));
  const area = (instrument: 'nib' | 'fineliner', pressure: number): number =>
    Math.abs(areaOf(strokePolygons(style({ instrument }), samplesOf(line(pressure)))[0]));
  expect(area('nib', 0.9)).toBeGreaterThan(1.5 * area('nib', 0.2));
  expect(area('fineliner', 0.9)).toBeCloseTo(area('fineliner', 0.2));
});

test('a highlighter is a straight bar with flat ends', () => {
  const [bar] = strokePolygons(
    style({ instrument: 'highlighter', width: 10 }),
    samplesOf([at(0, 0, 0), at(30, 9, 8), at(100, 0, 16)]),
  );
  expect(bar.length).toBe(8);
  expect(Math.abs(areaOf(bar))).toBeCloseTo(1000);
});
