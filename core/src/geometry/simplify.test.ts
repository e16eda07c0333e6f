import fc from 'fast-check';
import simplifyJs from 'simplify-js';
import { distanceToSegment, simplify } from './index';

const line = fc
  .array(
    fc.tuple(
      fc.double({ min: 0, max: 50, noNaN: true }),
      fc.double({ min: 0, max: 50, noNaN: true }),
    ),
    { minLength: 1, maxLength: 60 },
  )
  .map((points) => points.flat());

test('every point left out lies within the tolerance of what remains', () => {
  fc.assert(
    fc.property(line, fc.double({ min: 0.01, max: 5, noNaN: true }), (points, tolerance) => {
      const kept = simplify(points, tolerance);
      expect(kept.slice(0, 2)).toEqual(points.slice(0, 2));
      expect(kept.slice(-2)).toEqual(points.slice(-2));
      for (let i = 0; i < points.length; i += 2) {
        const p = { x: points[i], y: points[i + 1] };
        let nearest = Math.hypot(p.x - kept[0], p.y - kept[1]);
        for (let k = 2; k < kept.length; k += 2)
          nearest = Math.min(
            nearest,
            distanceToSegment(
              p,
              { x: kept[k - 2], y: kept[k - 1] },
              { x: kept[k], y: kept[k + 1] },
            ),
          );
        expect(nearest).toBeLessThanOrEqual(tolerance + 1e-6);
      }
    }),
  );
});

test('a straight line needs few points, a corner keeps its tip', () => {
  const straight = Array.from({ length: 50 }, (_, i) => [i, 2 * i]).flat();
  expect(simplify(straight, 0.01).length).toBeLessThan(14);
  expect(simplify([0, 0, 10, 0, 10, 10], 0.5)).toEqual([0, 0, 10, 0, 10, 10]);
});

/** Ink as pens report it: steps of a fraction of a point along smooth curves. */
const ink = fc
  .tuple(
    fc.double({ min: 3, max: 30, noNaN: true }),
    fc.double({ min: 2, max: 12, noNaN: true }),
    fc.double({ min: 0, max: 6, noNaN: true }),
  )
  .map(([swing, period, phase]) =>
    Array.from({ length: 300 }, (_, i) => [
      i * 0.4 + 5 * Math.sin(i / (3 * period)),
      swing * Math.sin(i / period + phase),
    ]).flat(),
  );

// simplify-js (V. Agafonkin) does Douglas–Peucker over the whole line, which needs the fewest points
// but all of the line at once; ours looks back over a few points only, for its cost to be bounded.
test('it keeps to the tolerance that simplify-js keeps to, with not many more points', () => {
  fc.assert(
    fc.property(ink, fc.constantFrom(0.02, 0.05, 0.2), (points, tolerance) => {
      const pairs = Array.from({ length: points.length / 2 }, (_, i) => ({
        x: points[2 * i],
        y: points[2 * i + 1],
      }));
      const theirs = simplifyJs(pairs, tolerance, true);
      const ours = simplify(points, tolerance).length / 2;
      expect(worst(pairs, theirs)).toBeLessThanOrEqual(tolerance + 1e-9);
      expect(ours).toBeLessThanOrEqual(1.7 * theirs.length + pairs.length / 12);
    }),
  );
});

const worst = (points: { x: number; y: number }[], line: { x: number; y: number }[]): number =>
  Math.max(
    ...points.map((p) =>
      Math.min(...line.slice(1).map((end, i) => distanceToSegment(p, line[i], end))),
    ),
  );
