import fc from 'fast-check';
import { movedWithin, nextAlong, onNextLine, reachesEnd } from './index';

const page = { width: 595, height: 842 };
const margins = { left: 40, right: 555 };
const frame = fc
  .record({
    x: fc.double({ min: 0, max: 400, noNaN: true }),
    y: fc.double({ min: 0, max: 700, noNaN: true }),
    width: fc.double({ min: 30, max: 190, noNaN: true }),
    height: fc.double({ min: 10, max: 100, noNaN: true }),
  })
  .map(({ x, y, width, height }) => ({ x0: x, y0: y, x1: x + width, y1: y + height }));

test('a frame goes on until the right margin, never past it, and then to a new line', () => {
  fc.assert(
    fc.property(frame, (start) => {
      fc.pre(start.x1 < margins.right);
      let now = start;
      for (let steps = 0; ; steps++) {
        expect(steps).toBeLessThan(60);
        const next = nextAlong(now, margins);
        if (next.kind === 'newLine') break;
        // What was the last part still shows: nobody has to guess where the line went on.
        expect(next.frame.x0).toBeLessThanOrEqual(now.x1 - 0.3 * (now.x1 - now.x0));
        expect(next.frame.x0).toBeGreaterThan(now.x0);
        expect(next.frame.x1).toBeLessThanOrEqual(margins.right + 1e-9);
        expect(next.frame.y0).toBe(now.y0);
        now = next.frame;
      }
      expect(now.x1).toBeGreaterThan(margins.right - 0.03 * (now.x1 - now.x0));
    }),
  );
});

test('the next line begins at the left margin, one pitch below; the page ends somewhere', () => {
  fc.assert(
    fc.property(frame, fc.double({ min: 8, max: 60, noNaN: true }), (start, pitch) => {
      const next = onNextLine(start, margins, pitch, page.height);
      if (!next) {
        expect(start.y1 + pitch).toBeGreaterThan(page.height);
        return;
      }
      expect(next.x0).toBeCloseTo(margins.left);
      expect(next.y0 - start.y0).toBeCloseTo(pitch);
      expect(next.x1 - next.x0).toBeCloseTo(start.x1 - start.x0);
    }),
  );
});

test('a frame that is moved stays on its page', () => {
  const by = fc.double({ min: -2000, max: 2000, noNaN: true });
  fc.assert(
    fc.property(frame, by, by, (start, dx, dy) => {
      const { x0, y0, x1, y1 } = movedWithin(start, dx, dy, page);
      expect(Math.min(x0, y0)).toBeGreaterThanOrEqual(-1e-9);
      expect(x1).toBeLessThanOrEqual(page.width + 1e-9);
      expect(y1).toBeLessThanOrEqual(page.height + 1e-9);
    }),
  );
});

test('only the last part of a frame is its end', () => {
  const it = { x0: 100, y0: 0, x1: 200, y1: 20 };
  expect(reachesEnd(it, 169)).toBe(false);
  expect(reachesEnd(it, 171)).toBe(true);
});
