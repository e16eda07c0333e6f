import fc from 'fast-check';
import { boxOf, type Point } from '../geometry/index';
import type { Annotation } from './annotation';
import { boxPolygon, enclosedBy, shareInside } from './enclosed';

const some = { id: 'a' } as Annotation;
const flat = (points: readonly Point[]): Float64Array =>
  Float64Array.from(points.flatMap(({ x, y }) => [x, y]));

/** A box that is turned, off any grid: corners seldom lie on sides. */
const turnedBox = fc
  .record({
    x: fc.double({ min: 0, max: 100, noNaN: true }),
    y: fc.double({ min: 0, max: 100, noNaN: true }),
    w: fc.double({ min: 3, max: 60, noNaN: true }),
    h: fc.double({ min: 3, max: 60, noNaN: true }),
    turn: fc.double({ min: 0.1, max: 1.4, noNaN: true }),
  })
  .map(({ x, y, w, h, turn }) =>
    [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ].map(([a, b]) => ({
      x: x + a * Math.cos(turn) - b * Math.sin(turn),
      y: y + a * Math.sin(turn) + b * Math.cos(turn),
    })),
  );

/**
 * How far two convex polygons are apart along the axis that parts them best, negative where none does: the separating
 * axis theorem (C. Ericson, Real-Time Collision Detection, 2005, 5.2.1).
 */
function gapBetween(a: readonly Point[], b: readonly Point[]): number {
  const axes = [a, b].flatMap((corners) =>
    corners.map(({ x, y }, i) => {
      const next = corners[(i + 1) % corners.length];
      const length = Math.hypot(next.x - x, next.y - y);
      return { x: (y - next.y) / length, y: (next.x - x) / length };
    }),
  );
  const along = (axis: Point, corners: readonly Point[]): number[] =>
    corners.map(({ x, y }) => x * axis.x + y * axis.y);
  const gaps = axes.map((axis) => {
    const [one, other] = [along(axis, a), along(axis, b)];
    return Math.max(Math.min(...other) - Math.max(...one), Math.min(...one) - Math.max(...other));
  });
  return Math.max(...gaps);
}

test('what is touched is what no axis parts', () => {
  fc.assert(
    fc.property(turnedBox, turnedBox, (region, shape) => {
      const gap = gapBetween(region, shape);
      // Where corners just meet, rounding decides.
      fc.pre(Math.abs(gap) > 1e-6);
      const looking = { outlinesOf: () => [flat(shape)], takes: 'touched' } as const;
      expect(enclosedBy(flat(region), [some], looking).length).toBe(gap < 0 ? 1 : 0);
    }),
    { numRuns: 400 },
  );
});

test.each([
  ['one within the other', boxPolygon(boxOf({ x: 0, y: 0 }, { x: 9, y: 9 })), true],
  ['the other within the one', boxPolygon(boxOf({ x: 30, y: 30 }, { x: 32, y: 32 })), true],
  [
    'a cross, no corner of one in the other',
    boxPolygon(boxOf({ x: 28, y: 0 }, { x: 34, y: 90 })),
    true,
  ],
  ['apart', boxPolygon(boxOf({ x: 80, y: 80 }, { x: 90, y: 90 })), false],
])('touching: %s', (_, shape, isTouched) => {
  const region = boxPolygon(boxOf({ x: -5, y: 20 }, { x: 60, y: 40 }));
  const wide = boxPolygon(boxOf({ x: -50, y: -50 }, { x: 60, y: 60 }));
  const looking = { outlinesOf: () => [shape], takes: 'touched' } as const;
  expect(enclosedBy(shape[0] === 0 ? wide : region, [some], looking).length > 0).toBe(isTouched);
});

test('the share of corners that lie inside', () => {
  const region = boxPolygon(boxOf({ x: 0, y: 0 }, { x: 10, y: 10 }));
  const half = boxPolygon(boxOf({ x: 5, y: 5 }, { x: 15, y: 9 }));
  expect(shareInside([half], region)).toBe(0.5);
  expect(shareInside([half, boxPolygon(boxOf({ x: 1, y: 1 }, { x: 2, y: 2 }))], region)).toBe(0.75);
  expect(shareInside([], region)).toBe(0);
});
