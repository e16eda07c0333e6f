import fc from 'fast-check';
import { MINIATURE, ON_TRAY, TRAY_SIDE, miniatureBox, trayOf } from './index';

const size = fc.record({
  width: fc.double({ min: 3, max: 14_400, noNaN: true }),
  height: fc.double({ min: 3, max: 14_400, noNaN: true }),
});

test('an A4 page keeps its proportion (ISO 216: 1 to the root of 2)', () => {
  const { x0, x1, y0, y1 } = miniatureBox(0, { width: 595.276, height: 841.89 });
  expect(y1 - y0).toBe(MINIATURE);
  expect(x1 - x0).toBe(Math.round(MINIATURE / Math.SQRT2));
});

test('miniatures of a tray lie on it, and none on another, whatever their pages are', () => {
  fc.assert(
    fc.property(fc.array(size, { minLength: ON_TRAY, maxLength: ON_TRAY }), (sizes) => {
      const boxes = sizes.map((each, i) => miniatureBox(5 * ON_TRAY + i, each));
      for (const [i, { x0, y0, x1, y1 }] of boxes.entries()) {
        expect(Math.min(x0, y0, x1 - x0 - 1, y1 - y0 - 1)).toBeGreaterThanOrEqual(0);
        expect(Math.max(x1, y1)).toBeLessThanOrEqual(MINIATURE * TRAY_SIDE);
        for (const other of boxes.slice(i + 1))
          expect(x1 <= other.x0 || y1 <= other.y0 || other.x1 <= x0).toBe(true);
      }
    }),
  );
});

test('pages are on trays in their order', () => {
  fc.assert(
    fc.property(fc.nat(5000), (index) => {
      expect(trayOf(index + ON_TRAY)).toBe(trayOf(index) + 1);
      expect(trayOf(index) * ON_TRAY).toBeLessThanOrEqual(index);
    }),
  );
});
