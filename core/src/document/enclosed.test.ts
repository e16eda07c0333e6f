import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
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

const ring = (points: readonly Point[]): [number, number][] => points.map(({ x, y }) => [x, y]);
const area = (points: readonly [number, number][]): number =>
  Math.abs(
    points.reduce((sum, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length];
      return sum + (x * ny - nx * y) / 2;
    }, 0),
  );

test('what is touched is what polygon-clipping finds to overlap', () => {
  fc.assert(
    fc.property(turnedBox, turnedBox, (region, shape) => {
      const common = polygonClipping.intersection([ring(region)], [ring(shape)]);
      const overlap = common.reduce((sum, [outer]) => sum + area(outer as [number, number][]), 0);
      // Where corners just meet, rounding decides.
      fc.pre(overlap === 0 || overlap > 1e-6);
      const looking = { outlinesOf: () => [flat(shape)], takes: 'touched' } as const;
      expect(enclosedBy(flat(region), [some], looking).length).toBe(overlap > 0 ? 1 : 0);
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
