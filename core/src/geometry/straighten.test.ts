import fc from 'fast-check';
import { distanceToSegment, simplify, straightened, type Point } from './index';

const coordinate = fc.double({ min: 0, max: 50, noNaN: true });
const line = fc
  .array(fc.tuple(coordinate, coordinate), { minLength: 1, maxLength: 60 })
  .map((points) => points.flat());
const tolerances = fc.double({ min: 0.01, max: 5, noNaN: true });

const pointsOf = (numbers: readonly number[]): Point[] =>
  Array.from({ length: numbers.length / 2 }, (_, i) => ({
    x: numbers[2 * i],
    y: numbers[2 * i + 1],
  }));

const distance = (p: Point, points: readonly Point[]): number =>
  Math.min(...points.map((a, i) => distanceToSegment(p, a, points[i + 1] ?? a)));

test('every point lies within the tolerance of the straight lines, and these begin where the line does', () => {
  fc.assert(
    fc.property(line, tolerances, (numbers, tolerance) => {
      const kept = straightened(numbers, tolerance);
      expect(kept.slice(0, 2)).toEqual(numbers.slice(0, 2));
      for (const p of pointsOf(numbers))
        expect(distance(p, pointsOf(kept))).toBeLessThanOrEqual(tolerance + 1e-6);
    }),
  );
});

test('nothing strays from the line: where straight lines meet is within the tolerance of it', () => {
  fc.assert(
    fc.property(line, tolerances, (numbers, tolerance) => {
      const points = pointsOf(numbers);
      for (const p of pointsOf(straightened(numbers, tolerance)))
        expect(distance(p, points)).toBeLessThanOrEqual(tolerance + 1e-6);
    }),
  );
});

test('it takes one line where all is straight, a corner keeps its tip, and what is within the tolerance two points', () => {
  const straight = Array.from({ length: 50 }, (_, i) => [i, 2 * i + (i % 2) / 100]).flat();
  expect(straightened(straight, 0.05)).toHaveLength(4);
  expect(straightened([0, 0, 10, 0, 10, 10], 0.5)).toHaveLength(6);
  expect(straightened([1, 1, 1.01, 1, 1, 1.01], 0.5)).toEqual([1, 1, 1, 1.01]);
});

// An arc of sagitta s needs chords of angle 2 acos(1 − s/r); a line that may be as far outside as inside the arc spans
// s = 2 × the tolerance: √2 times longer chords than with ends on the arc (plane geometry).
test('a circle takes a fifth fewer lines than with points left out', () => {
  const circle = Array.from({ length: 400 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 399;
    return [20 * Math.cos(angle), 20 * Math.sin(angle)];
  }).flat();
  const ours = straightened(circle, 0.05).length / 2 - 1;
  const least = Math.PI / Math.acos(1 - 0.1 / 20);
  expect(ours).toBeGreaterThanOrEqual(Math.floor(least / Math.SQRT2));
  expect(ours).toBeLessThan(0.8 * (simplify(circle, 0.05).length / 2 - 1));
});
