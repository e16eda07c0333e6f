import fc from 'fast-check';
import type { Point } from '../geometry/index';
import { areaOf, windingNumber } from '../ink/index';
import { hullOf, isScratchOut, ringOf } from './index';

/** To and fro in so many passes over a box, in small steps as a pen reports them. */
function zigzag(passes: number, width: number, height: number, turn = 0): Point[] {
  const corners = Array.from({ length: passes + 1 }, (_, i) => ({
    x: i % 2 === 0 ? 0 : width,
    y: (height * i) / passes,
  }));
  return rotated(walked(corners), turn);
}

function walked(corners: readonly Point[]): Point[] {
  return corners.flatMap((to, i) => {
    const from = corners[i - 1];
    if (!from) return [to];
    return Array.from({ length: 8 }, (_, k) => ({
      x: from.x + ((to.x - from.x) * (k + 1)) / 8,
      y: from.y + ((to.y - from.y) * (k + 1)) / 8,
    }));
  });
}

const rotated = (points: readonly Point[], turn: number): Point[] =>
  points.map(({ x, y }) => ({
    x: x * Math.cos(turn) - y * Math.sin(turn),
    y: x * Math.sin(turn) + y * Math.cos(turn),
  }));

const ring = (rx: number, ry: number, share = 1): Point[] =>
  Array.from({ length: 60 }, (_, i) => ({
    x: rx * Math.cos((share * i * 2 * Math.PI) / 59),
    y: ry * Math.sin((share * i * 2 * Math.PI) / 59),
  }));

test('close passes are a scratch however they are turned, from five passes on', () => {
  const turn = fc.double({ min: -3, max: 3, noNaN: true });
  const width = fc.double({ min: 15, max: 200, noNaN: true });
  fc.assert(
    fc.property(fc.integer({ min: 5, max: 14 }), width, turn, (passes, w, angle) => {
      expect(isScratchOut(zigzag(passes, w, 0.25 * w, angle))).toBe(true);
      expect(isScratchOut(zigzag(3, w, 0.25 * w, angle))).toBe(false);
    }),
  );
});

test('passes far apart, small ones, stars, rings and lines are none', () => {
  expect(isScratchOut(zigzag(7, 20, 160))).toBe(false);
  expect(isScratchOut(zigzag(7, 4, 2))).toBe(false);
  const star = [0, 2, 4, 1, 3, 0].map((i) => ({
    x: 40 * Math.cos((i * 2 * Math.PI) / 5),
    y: 40 * Math.sin((i * 2 * Math.PI) / 5),
  }));
  expect(isScratchOut(walked(star))).toBe(false);
  expect(isScratchOut(ring(40, 20))).toBe(false);
  expect(
    isScratchOut(
      walked([
        { x: 0, y: 0 },
        { x: 90, y: 4 },
      ]),
    ),
  ).toBe(false);
  expect(isScratchOut([])).toBe(false);
});

test('a ring is closed and goes round something; what is open, flat or a line is none', () => {
  const polygon = ringOf(ring(50, 30))!;
  expect(Math.abs(areaOf(polygon)) / (Math.PI * 50 * 30)).toBeCloseTo(1, 1);
  expect(windingNumber(polygon, { x: 0, y: 0 })).not.toBe(0);
  expect(ringOf(ring(50, 30, 0.7))).toBeUndefined();
  expect(ringOf(ring(60, 3))).toBeUndefined();
  expect(
    ringOf(
      walked([
        { x: 0, y: 0 },
        { x: 90, y: 4 },
      ]),
    ),
  ).toBeUndefined();
});

test('every point of a way lies in its hull', () => {
  const point = fc.record({
    x: fc.double({ min: -90, max: 90, noNaN: true }),
    y: fc.double({ min: -90, max: 90, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(point, { minLength: 3, maxLength: 40 }), (points) => {
      const hull = hullOf(points);
      fc.pre(hull !== undefined && Math.abs(areaOf(hull)) > 1);
      const middle = points.reduce((s, p) => ({ x: s.x + p.x, y: s.y + p.y }), { x: 0, y: 0 });
      const centre = { x: middle.x / points.length, y: middle.y / points.length };
      for (const p of points) {
        // A hair nearer to the middle: points of the hull itself lie on its edge.
        const inner = { x: p.x + 1e-6 * (centre.x - p.x), y: p.y + 1e-6 * (centre.y - p.y) };
        expect(windingNumber(hull!, inner)).not.toBe(0);
      }
    }),
  );
});
