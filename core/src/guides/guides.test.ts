import fc from 'fast-check';
import { distance } from '../geometry/index';
import { isoA, toMillimetres, toPoints } from '../paper/index';
import {
  alongEdge,
  edgeNear,
  guideEdges,
  onEdge,
  settledAngle,
  ticksOf,
  type Guide,
} from './index';

const number = fc.double({ min: -400, max: 400, noNaN: true });
const guide = fc.record({
  kind: fc.constantFrom('ruler', 'setSquare'),
  at: fc.record({ x: number, y: number }),
  angle: fc.double({ min: 0, max: 359, noNaN: true }),
  length: fc.double({ min: 40, max: 600, noNaN: true }),
}) as fc.Arbitrary<Guide>;

// ISO 216: A4 is 210 mm by 297 mm. Pages are in points of 1/72 in, an inch being 25.4 mm.
test.each([4, 5, 3])('a ruler along the edges of an A%i page measures what ISO 216 says', (n) => {
  const { width, height } = isoA(n);
  const [w, h] = [toPoints(width), toPoints(height)];
  const ruler: Guide = { kind: 'ruler', at: { x: w / 2, y: 0 }, angle: 0, length: w };
  const [edge] = guideEdges(ruler);
  const measured = alongEdge(edge, { x: w, y: 0 }) - alongEdge(edge, { x: 0, y: 0 });
  expect(toMillimetres(measured)).toBeCloseTo(width, 6);
  const [upright] = guideEdges({ kind: 'ruler', at: { x: 0, y: h / 2 }, angle: 90, length: h });
  const down = alongEdge(upright, { x: 0, y: 0 }) - alongEdge(upright, { x: 0, y: h });
  expect(toMillimetres(down)).toBeCloseTo(height, 6);
  const marks = ticksOf(w, 96 / 72);
  expect(marks.at(-1)!.millimetres).toBe(width - (width % 2));
  expect(marks.filter(({ rank }) => rank === 2)[1].millimetres).toBe(20);
});

test('points on an edge lie exactly on its line, as far along as they were', () => {
  fc.assert(
    fc.property(guide, number, number, (g, x, y) => {
      for (const edge of guideEdges(g)) {
        const on = onEdge(edge, { x, y });
        const length = distance(edge.from, edge.to);
        const cross =
          (edge.to.x - edge.from.x) * (on.y - edge.from.y) -
          (edge.to.y - edge.from.y) * (on.x - edge.from.x);
        expect(Math.abs(cross) / length).toBeLessThan(1e-9 * (length + 1000));
        expect(alongEdge(edge, on)).toBeCloseTo(alongEdge(edge, { x, y }), 6);
      }
    }),
  );
});

test('a set square has a right angle and two of 45°, however it is turned', () => {
  fc.assert(
    fc.property(guide, (g) => {
      const [long, a, b] = guideEdges({ ...g, kind: 'setSquare' });
      const dot = (p: typeof long, q: typeof long): number =>
        ((p.to.x - p.from.x) * (q.to.x - q.from.x) + (p.to.y - p.from.y) * (q.to.y - q.from.y)) /
        (distance(p.from, p.to) * distance(q.from, q.to));
      expect(dot(a, b)).toBeCloseTo(0, 6);
      expect(Math.abs(dot(long, a))).toBeCloseTo(Math.SQRT1_2, 6);
      expect(distance(long.from, long.to)).toBeCloseTo(g.length, 6);
    }),
  );
});

test('only a pen that comes down by an edge is guided by it', () => {
  const ruler: Guide = { kind: 'ruler', at: { x: 100, y: 100 }, angle: 0, length: 100 };
  expect(edgeNear([ruler], { x: 120, y: 90 }, 6)).toEqual({
    from: { x: 50, y: 94 },
    to: { x: 150, y: 94 },
  });
  expect(edgeNear([ruler], { x: 120, y: 80 }, 6)).toBeUndefined();
  expect(edgeNear([ruler], { x: 160, y: 94 }, 6)).toBeUndefined();
  expect(edgeNear([], { x: 120, y: 94 }, 6)).toBeUndefined();
});

test('an upward slope has a positive angle; near a multiple of 15° it is that', () => {
  const [edge] = guideEdges({ kind: 'ruler', at: { x: 0, y: 0 }, angle: 30, length: 100 });
  expect(Math.atan2(edge.from.y - edge.to.y, edge.to.x - edge.from.x)).toBeCloseTo(Math.PI / 6);
  expect(settledAngle(44.2)).toBe(45);
  expect(settledAngle(42)).toBe(42);
  expect(settledAngle(-0.5)).toBe(0);
  expect(settledAngle(371)).toBe(11);
});

test('marks are never too close to tell apart', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 40, noNaN: true }), (scale) => {
      const [a, b] = ticksOf(600, scale);
      expect((b.at - a.at) * scale).toBeGreaterThanOrEqual(5);
    }),
  );
});
