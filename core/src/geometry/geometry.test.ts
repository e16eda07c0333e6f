import fc from 'fast-check';
import {
  compose,
  distanceToSegment,
  inverse,
  intersect,
  pageView,
  touches,
  transform,
  transformBox,
  unite,
  type Matrix,
} from './index';

const number = fc.double({ min: -1000, max: 1000, noNaN: true });
const point = fc.record({ x: number, y: number });
const matrix = fc
  .tuple(number, number, number, number, number, number)
  .filter(([a, b, c, d]) => Math.abs(a * d - b * c) > 1) as fc.Arbitrary<Matrix>;
const box = fc.tuple(point, point).map(([a, b]) => ({
  x0: Math.min(a.x, b.x),
  y0: Math.min(a.y, b.y),
  x1: Math.max(a.x, b.x),
  y1: Math.max(a.y, b.y),
}));

test('a matrix and its inverse cancel out', () => {
  fc.assert(
    fc.property(matrix, point, (m, p) => {
      const back = transform(inverse(m), transform(m, p));
      expect(back.x).toBeCloseTo(p.x, 3);
      expect(back.y).toBeCloseTo(p.y, 3);
    }),
  );
});

test('composing is doing one after the other', () => {
  fc.assert(
    fc.property(matrix, matrix, point, (first, then, p) => {
      const once = transform(compose(first, then), p);
      const twice = transform(then, transform(first, p));
      expect(once.x).toBeCloseTo(twice.x, 3);
      expect(once.y).toBeCloseTo(twice.y, 3);
    }),
  );
});

// ISO 32000-1, 8.3.3: translation by (tx, ty) is [1 0 0 1 tx ty]; 8.3.4: M' = Mtranslate × Mrotate.
test('matrices read as in ISO 32000-1, 8.3.3', () => {
  expect(transform([1, 0, 0, 1, 5, 7], { x: 1, y: 2 })).toEqual({ x: 6, y: 9 });
  expect(transform([2, 0, 0, 3, 0, 0], { x: 1, y: 2 })).toEqual({ x: 2, y: 6 });
  const turned = transform([0, 1, -1, 0, 0, 0], { x: 1, y: 0 });
  expect(turned.x).toBeCloseTo(0);
  expect(turned.y).toBeCloseTo(1);
});

test('a flat matrix has no inverse, and says so', () => {
  expect(() => inverse([1, 2, 2, 4, 0, 0])).toThrow(RangeError);
});

// ISO 32000-1, table 30: Rotate is the number of degrees the page is turned clockwise when shown.
test.each([
  [0, { x: 0, y: 0 }],
  [90, { x: 792, y: 0 }],
  [180, { x: 612, y: 792 }],
  [270, { x: 0, y: 612 }],
] as const)(
  'at %i° the page’s top left corner is shown where clockwise turning puts it',
  (rotation, corner) => {
    const shown = transform(pageView(612, 792, rotation, 1), { x: 0, y: 0 });
    expect(shown).toEqual(
      expect.objectContaining({ x: expect.closeTo(corner.x), y: expect.closeTo(corner.y) }),
    );
    const whole = transformBox(pageView(612, 792, rotation, 1), { x0: 0, y0: 0, x1: 612, y1: 792 });
    expect(whole.x0).toBeCloseTo(0);
    expect(whole.y0).toBeCloseTo(0);
    expect([whole.x1, whole.y1]).toEqual(rotation % 180 === 0 ? [612, 792] : [792, 612]);
  },
);

test('boxes share something exactly when they touch, and their union holds both', () => {
  fc.assert(
    fc.property(box, box, (a, b) => {
      expect(intersect(a, b) !== undefined).toBe(touches(a, b));
      const both = unite(a, b);
      expect(intersect(both, a)).toEqual(a);
      expect(intersect(both, b)).toEqual(b);
    }),
  );
});

test('the distance to a segment is never more than to its ends, nor less than to its line', () => {
  fc.assert(
    fc.property(point, point, point, (p, a, b) => {
      const d = distanceToSegment(p, a, b);
      expect(d).toBeLessThanOrEqual(Math.hypot(p.x - a.x, p.y - a.y) + 1e-9);
      expect(d).toBeLessThanOrEqual(Math.hypot(p.x - b.x, p.y - b.y) + 1e-9);
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      const toLine =
        length === 0 ? 0 : Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length;
      expect(d).toBeGreaterThanOrEqual(toLine - 1e-6);
    }),
  );
});
