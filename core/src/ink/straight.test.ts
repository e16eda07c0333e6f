import fc from 'fast-check';
import { LineFit, fitBar, type Bar } from './straight';

const fit = (points: readonly [number, number][], width = 14): Bar | undefined => {
  const line = new LineFit();
  for (const [x, y] of points) line.add({ x, y });
  return line.bar(width);
};
const box = (x0: number, y0: number, x1: number, y1: number): Float64Array[] => [
  Float64Array.of(x0, y0, x1, y0, x1, y1, x0, y1),
];

// K. Pearson, “On lines and planes of closest fit to systems of points in space” (1901), gives this
// worked example, with the line at an angle of tan θ = −0.54556 through the mean (values from memory).
test('the line is the one of closest fit', () => {
  const points: [number, number][] = [
    [0, 5.9],
    [0.9, 5.4],
    [1.8, 4.4],
    [2.6, 4.6],
    [3.3, 3.5],
    [4.4, 3.7],
    [5.2, 2.8],
    [6.1, 2.8],
    [6.5, 2.4],
    [7.4, 1.5],
  ];
  const { from, to } = fit(points)!;
  expect((to.y - from.y) / (to.x - from.x)).toBeCloseTo(-0.54556, 4);
});

test('a wobbly stroke becomes a level bar, a ring or a hook none', () => {
  const wobbly = Array.from({ length: 60 }, (_, i): [number, number] => [
    100 + i * 4,
    50 + 3 * Math.sin(i / 4) + i * 0.08,
  ]);
  const bar = fit(wobbly)!;
  expect(bar.from.y).toBeCloseTo(bar.to.y);
  expect(bar.to.x - bar.from.x).toBeCloseTo(236, 0);
  const ring = Array.from({ length: 60 }, (_, i): [number, number] => [
    100 + 40 * Math.cos(i / 9.5),
    100 + 40 * Math.sin(i / 9.5),
  ]);
  expect(fit(ring)).toBeUndefined();
  const hook = Array.from({ length: 60 }, (_, i): [number, number] =>
    i < 30 ? [i * 5, 0] : [150, (i - 30) * 5],
  );
  expect(fit(hook)).toBeUndefined();
  expect(fit([[7, 7]])).toMatchObject({ from: { x: 7, y: 7 }, to: { x: 7, y: 7 } });
});

test('points on any line give that line, wherever it lies', () => {
  const coordinate = fc.double({ min: -5000, max: 5000, noNaN: true });
  // Off those that are made level on purpose.
  const direction = fc
    .tuple(fc.double({ min: 0.11, max: 1.46, noNaN: true }), fc.nat(3))
    .map(([angle, quarter]) => angle + (quarter * Math.PI) / 2);
  fc.assert(
    fc.property(coordinate, coordinate, direction, (x, y, a) => {
      const points = Array.from({ length: 40 }, (_, i): [number, number] => [
        x + i * 5 * Math.cos(a),
        y + i * 5 * Math.sin(a),
      ]);
      const { from, to } = fit(points)!;
      expect(Math.hypot(from.x - x, from.y - y)).toBeLessThan(1e-3);
      expect(Math.hypot(to.x - points[39][0], to.y - points[39][1])).toBeLessThan(1e-3);
    }),
  );
});

const bar: Bar = { from: { x: 0, y: 100 }, to: { x: 200, y: 100 }, width: 12 };

test('a bar takes the height and the middle of the writing it covers', () => {
  const fitted = fitBar(bar, [box(10, 90, 30, 104), box(40, 92, 80, 108), box(90, 94, 91, 95)]);
  expect(fitted.width).toBeCloseTo(18 * 1.16);
  expect(fitted.from).toEqual({ x: 0, y: 99 });
  expect(fitted.to).toEqual({ x: 200, y: 99 });
});

test('what only hangs into the bar, or lies past its ends, is not covered', () => {
  expect(fitBar(bar, [box(10, 60, 30, 97)])).toEqual(bar);
  expect(fitBar(bar, [box(210, 95, 240, 105)])).toEqual(bar);
  expect(fitBar(bar, [])).toEqual(bar);
  // A drawing as high as a page is no line of writing.
  expect(fitBar(bar, [box(0, 0, 200, 200)])).toEqual(bar);
});
