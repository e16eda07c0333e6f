import fc from 'fast-check';
import { distanceToSegment, type Point } from '../geometry/index';
import {
  areaOf,
  quantise,
  samplesOf,
  strokeOutline,
  windingNumber,
  type Polygon,
} from '../ink/index';
import { united } from './united';

/** Ways with turns of every sharpness, and small curls like those of letters. */
const way = fc
  .tuple(
    fc.array(fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 })), {
      minLength: 2,
      maxLength: 6,
    }),
    fc.double({ min: 0.5, max: 8, noNaN: true }),
    fc.double({ min: 0.1, max: 1.5, noNaN: true }),
  )
  .map(([corners, size, turn]) =>
    corners.flatMap(([x, y]) =>
      Array.from({ length: 8 }, (_, i) => ({
        x: x + size * Math.sin(i * turn),
        y: y + size * Math.cos(i * turn),
      })),
    ),
  );

function outlineAlong(points: readonly Point[], width: number): Polygon {
  const samples = points.map(({ x, y }, i) =>
    quantise({ x, y, pressure: 0.3 + 0.05 * (i % 9), tiltX: 0, tiltY: 0, time: 8 * i }),
  );
  const style = { instrument: 'nib', width, smoothing: 0.3 } as const;
  return strokeOutline(style, samplesOf(samples))[0].polygon;
}

const covers = (polygons: readonly Polygon[], p: Point): boolean =>
  polygons.reduce((sum, polygon) => sum + windingNumber(polygon, p), 0) !== 0;

function isNear(polygon: Polygon, p: Point): boolean {
  const n = polygon.length;
  for (let i = 0; i < n; i += 2) {
    const a = { x: polygon[i], y: polygon[i + 1] };
    const b = { x: polygon[(i + 2) % n], y: polygon[(i + 3) % n] };
    if (distanceToSegment(p, a, b) < 0.01) return true;
  }
  return false;
}

test('united, outlines cover the same', () => {
  const width = fc.double({ min: 0.5, max: 6, noNaN: true });
  fc.assert(
    fc.property(way, way, width, (one, other, wide) => {
      const outlines = [outlineAlong(one, wide), outlineAlong(other, wide)];
      const whole = united(outlines);
      for (let x = -10; x < 42; x += 1.3) {
        for (let y = -10; y < 42; y += 1.3) {
          const p = { x, y };
          if (covers(outlines, p) === covers(whole, p)) continue;
          expect(outlines.some((outline) => isNear(outline, p))).toBe(true);
        }
      }
    }),
    { numRuns: 40 },
  );
});

test('what sharp turns leave is gone, and holes of letters stay open', () => {
  const zigzag = Array.from({ length: 12 }, (_, i) => ({ x: 3 * i, y: i % 2 === 0 ? 5 : 20 }));
  const outline = outlineAlong(zigzag, 2);
  const points = united([outline]).reduce((sum, { length }) => sum + length, 0);
  expect(points).toBeLessThan(0.9 * outline.length);
  const ring = Array.from({ length: 40 }, (_, i) => ({
    x: 15 + 4 * Math.sin(i / 6),
    y: 15 + 4 * Math.cos(i / 6),
  }));
  const letter = united([outlineAlong(ring, 1)]);
  expect(letter).toHaveLength(2);
  expect(covers(letter, { x: 15, y: 15 })).toBe(false);
});

// Two squares of side 10 that share a quarter: 100 + 100 − 25 (plane geometry), by the shoelace formula.
test('what two outlines share is covered once', () => {
  const square = (at: number): Polygon =>
    Float64Array.from([at, at, at + 10, at, at + 10, at + 10, at, at + 10]);
  const whole = united([square(0), square(5)]);
  expect(whole).toHaveLength(1);
  expect(Math.abs(areaOf(whole[0]))).toBeCloseTo(175, 6);
});

test('a scribble of thousands of points is left as it is', () => {
  const scribble = Float64Array.from({ length: 9000 }, (_, i) => 50 * Math.sin(i * 0.37));
  expect(united([scribble])).toEqual([scribble]);
});
