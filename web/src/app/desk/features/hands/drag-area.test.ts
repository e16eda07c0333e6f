import fc from 'fast-check';
import { restingAreaSchema } from '@stylet/core/api';
import { dragArea, type AreaPart } from './drag-area';

const area = fc
  .tuple(...[0, 1, 2, 3].map(() => fc.double({ min: 0, max: 1, noNaN: true })))
  .map(([a, b, c, d]) => {
    const [width, height] = [0.08 + 0.92 * a, 0.08 + 0.92 * b];
    return { x: (1 - width) * c, y: (1 - height) * d, width, height };
  });
const by = fc.record({
  x: fc.double({ min: -2, max: 2, noNaN: true }),
  y: fc.double({ min: -2, max: 2, noNaN: true }),
});
const part = fc.constantFrom<AreaPart>('all', 'top', 'left', 'right');

test('however it is dragged, it stays on the desk and large enough to be taken hold of', () => {
  fc.assert(
    fc.property(area, part, by, (before, what, way) => {
      const after = dragArea(before, what, way);
      expect(restingAreaSchema.safeParse(after).success).toBe(true);
      expect(after.x + after.width).toBeLessThanOrEqual(1 + 1e-9);
      expect(after.y + after.height).toBeLessThanOrEqual(1 + 1e-9);
      expect(Math.min(after.width, after.height)).toBeGreaterThan(0.07);
    }),
  );
});

test('edges move alone: the one opposite stays', () => {
  const before = { x: 0.2, y: 0.5, width: 0.6, height: 0.4 };
  expect(dragArea(before, 'top', { x: 0.3, y: -0.1 })).toEqual({
    x: 0.2,
    y: 0.4,
    width: 0.6,
    height: 0.5,
  });
  const left = dragArea(before, 'left', { x: 0.1, y: 0.3 });
  expect(left.x + left.width).toBeCloseTo(0.8);
  expect(dragArea(before, 'right', { x: 0.1, y: 0 }).width).toBeCloseTo(0.7);
});
