import fc from 'fast-check';
import { distance, transform, type Matrix, type Point } from '../geometry/index';
import { areaOf } from '../ink/index';
import {
  about,
  adjusted,
  axesOf,
  centreOf,
  dragHandle,
  handlesOf,
  hasRightAngles,
  recogniseShape,
  shapeArea,
  shapePaths,
  transformShape,
  type Shape,
} from './index';

const number = fc.double({ min: -100, max: 100, noNaN: true });
const point = fc.record({ x: number, y: number });
const rectangle: Shape = {
  form: 'rectangle',
  points: [
    { x: 0, y: 0 },
    { x: 40, y: 0 },
    { x: 40, y: 20 },
    { x: 0, y: 20 },
  ],
};
const circle: Shape = {
  form: 'circle',
  points: [
    { x: 10, y: 10 },
    { x: 35, y: 10 },
  ],
};
const line = (to: Point, bend?: number): Shape => ({
  form: 'line',
  points: [{ x: 0, y: 0 }, to],
  ...(bend === undefined ? {} : { bends: [bend] }),
});
const turned = (shape: Shape, degrees: number): Shape =>
  transformShape(shape, about({ x: 3, y: 4 }, 1, (degrees * Math.PI) / 180));

test('outlines have the area of elementary geometry', () => {
  expect(Math.abs(areaOf(shapeArea(rectangle)!))).toBeCloseTo(800);
  expect(Math.abs(areaOf(shapeArea(circle)!)) / (Math.PI * 625)).toBeCloseTo(1, 3);
  expect(shapeArea(line({ x: 5, y: 5 }))).toBeUndefined();
});

test('a side bent by half its length is half a circle, on the right of its way as seen', () => {
  const [path] = shapePaths(line({ x: 20, y: 0 }, 10), 1);
  for (const p of path) expect(distance(p, { x: 10, y: 0 })).toBeCloseTo(10, 1);
  expect(Math.max(...path.map(({ y }) => y))).toBeCloseTo(10, 3);
});

test('every point of a bent side lies on one circle through its ends and its middle', () => {
  const bend = fc.double({ min: -60, max: 60, noNaN: true }).filter((b) => Math.abs(b) > 0.5);
  fc.assert(
    fc.property(fc.double({ min: 5, max: 80, noNaN: true }), bend, (length, b) => {
      const [path] = shapePaths(line({ x: length, y: 0 }, b), 1);
      // Intersecting chords: the centre lies on the bisector, where both distances are one.
      const cy = b / 2 - (length * length) / (8 * b);
      const radius = Math.hypot(length / 2, cy);
      for (const p of path.filter((_, i) => i !== 1 && i !== path.length - 2))
        expect(Math.abs(distance(p, { x: length / 2, y: cy }) - radius)).toBeLessThan(1e-6);
    }),
  );
});

test('an arrow has a head at its end, within its length', () => {
  const arrow: Shape = { form: 'arrow', points: [circle.points[0], { x: 90, y: 10 }] };
  const [shaft, head] = shapePaths(arrow, 2);
  expect(shaft.at(-1)).toEqual({ x: 90, y: 10 });
  expect(head).toContainEqual({ x: 90, y: 10 });
  for (const { x, y } of head) {
    expect(x).toBeGreaterThan(60);
    expect(Math.abs(y - 10)).toBeLessThan(12);
  }
});

test('what a handle is drawn to is where it is afterwards', () => {
  const shapes = fc.constantFrom<Shape>(
    rectangle,
    turned(rectangle, 27),
    { form: 'polygon', points: [...rectangle.points, { x: -9, y: 9 }] },
    line({ x: 30, y: 12 }),
    circle,
    { form: 'ellipse', points: [circle.points[0], { x: 35, y: 10 }, { x: 10, y: 22 }] },
  );
  fc.assert(
    fc.property(shapes, fc.nat(20), point, (shape, pick, to) => {
      const handles = handlesOf(shape).filter(({ kind }) => kind !== 'side');
      const handle = handles[pick % handles.length];
      fc.pre(distance(to, centreOf(shape)) > 1);
      const after = handlesOf(dragHandle(shape, handle, to))[
        handlesOf(shape).findIndex((h) => h.kind === handle.kind && h.index === handle.index)
      ];
      expect(distance(after.at, to)).toBeLessThan(1e-9);
    }),
  );
});

test('a rectangle stays one, whichever handle is drawn, and its far corner stays', () => {
  fc.assert(
    fc.property(fc.integer({ min: -180, max: 180 }), fc.nat(7), point, (turn, pick, to) => {
      const shape = turned(rectangle, turn);
      const handle = handlesOf(shape)[pick];
      const after = dragHandle(shape, handle, to);
      expect(hasRightAngles(after.points)).toBe(true);
      const fixed = (handle.index + (handle.kind === 'corner' ? 2 : 3)) % 4;
      expect(distance(after.points[fixed], shape.points[fixed])).toBeLessThan(1e-9);
    }),
    // A side drawn onto the one opposite.
    { examples: [[0, 3, { x: -2.5000025000025e-20, y: 0 }]] },
  );
});

test('a side is bent to where its middle is drawn, and straight when it is nearly so', () => {
  const triangle: Shape = { form: 'triangle', points: rectangle.points.slice(0, 3) };
  const [, , , side] = handlesOf(triangle);
  expect(dragHandle(triangle, side, { x: 20, y: -7 }).bends).toEqual([-7, 0, 0]);
  expect(dragHandle(triangle, side, { x: 20, y: 0.3 }).bends).toEqual([0, 0, 0]);
});

const matrix = fc
  .tuple(number, number, number, number, number, number)
  .filter(([a, b, c, d]) => Math.abs(a * d - b * c) > 5) as fc.Arbitrary<Matrix>;

test('the image of a circle under any affine map holds the images of its points', () => {
  fc.assert(
    fc.property(matrix, fc.double({ min: 0, max: 6.28, noNaN: true }), (m, angle) => {
      const image = transformShape(circle, m);
      const [c, [a, b]] = [image.points[0], axesOf(image)];
      expect(Math.abs(a.x * b.x + a.y * b.y)).toBeLessThan(
        1e-6 * (Math.hypot(a.x, a.y) * Math.hypot(b.x, b.y)) + 1e-6,
      );
      const p = transform(m, { x: 10 + 25 * Math.cos(angle), y: 10 + 25 * Math.sin(angle) });
      const u = ((p.x - c.x) * a.x + (p.y - c.y) * a.y) / (a.x * a.x + a.y * a.y);
      const v = ((p.x - c.x) * b.x + (p.y - c.y) * b.y) / (b.x * b.x + b.y * b.y);
      expect(u * u + v * v).toBeCloseTo(1, 4);
    }),
  );
});

test('a rectangle turned stays one, sheared it becomes a polygon', () => {
  expect(turned(rectangle, 33).form).toBe('rectangle');
  expect(transformShape(rectangle, [1, 0, 0.5, 1, 0, 0]).form).toBe('polygon');
});

test('while the pen is down a line’s end follows it, a circle grows and does not turn', () => {
  const drawn = line({ x: 30, y: 12 });
  expect(adjusted(drawn, { x: 31, y: 12 }, { x: 41, y: 22 }).points[1]).toEqual({ x: 40, y: 22 });
  const grown = adjusted(circle, { x: 35, y: 10 }, { x: 60, y: 11 });
  expect(distance(grown.points[0], grown.points[1])).toBeCloseTo(50, 0);
  expect(grown.form).toBe('circle');
  const quarter = adjusted(rectangle, { x: 40, y: 10 }, { x: 20, y: 30 });
  expect(quarter.points[1].x).toBeCloseTo(30);
  expect(quarter.points[1].y).toBeCloseTo(30);
});

test('lines and boxes nearly level are made so, others are left as they were drawn', () => {
  const drawn = (to: Point) => Array.from({ length: 20 }, (_, i) => at(to, i / 19));
  const at = (to: Point, t: number): Point => ({ x: to.x * t, y: to.y * t });
  expect(recogniseShape(drawn({ x: 100, y: 3 }))!.points[1].y).toBeCloseTo(0);
  expect(recogniseShape(drawn({ x: 100, y: 20 }))!.points[1].y).toBeCloseTo(20);
});

test('dots, single points and strokes that are nothing are no shapes', () => {
  expect(recogniseShape([])).toBeUndefined();
  expect(recogniseShape([{ x: 1, y: 1 }])).toBeUndefined();
  expect(recogniseShape([0, 1, 2, 3].map((x) => ({ x, y: x % 2 })))).toBeUndefined();
});
