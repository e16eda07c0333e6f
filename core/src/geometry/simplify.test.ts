import fc from 'fast-check';
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
