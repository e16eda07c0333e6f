import fc from 'fast-check';
import type { Annotation } from '@stylet/core/document';
import { chooseWindow, fileMarks } from './window';

test('a page of ordinary size is drawn whole, and its window kept', () => {
  const first = chooseWindow(1, 800, 1000, { x0: 0, y0: 0, x1: 800, y1: 600 }, undefined);
  expect(first).toMatchObject({ x: 0, y: 0, width: 800, height: 1000 });
  expect(chooseWindow(1, 800, 1000, { x0: 0, y0: 300, x1: 800, y1: 900 }, first)).toBe(first);
});

test('of a large page what shows is always covered, and memory stays bounded', () => {
  const share = fc.double({ min: 0, max: 0.85, noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.tuple(share, share), { minLength: 1, maxLength: 8 }), (places) => {
      let window: ReturnType<typeof chooseWindow> | undefined;
      for (const [sx, sy] of places) {
        const visible = { x0: sx * 6400, y0: sy * 8000, x1: sx * 6400 + 900, y1: sy * 8000 + 700 };
        window = chooseWindow(8, 6400, 8000, visible, window);
        expect(window.x).toBeLessThanOrEqual(visible.x0);
        expect(window.y).toBeLessThanOrEqual(visible.y0);
        expect(window.x + window.width).toBeGreaterThanOrEqual(Math.min(6400, visible.x1) - 1);
        expect(window.y + window.height).toBeGreaterThanOrEqual(Math.min(8000, visible.y1) - 1);
        expect(window.width * window.height).toBeLessThan(2_000_000);
      }
    }),
  );
});

test('a window that is being drawn already is taken, not one a pixel beside it', () => {
  const ahead = chooseWindow(8, 6400, 8000, { x0: 900, y0: 900, x1: 1801, y1: 1600 }, undefined);
  const visible = { x0: 900, y0: 900, x1: 1800, y1: 1600 };
  const before = chooseWindow(2, 1600, 2000, { x0: 0, y0: 0, x1: 900, y1: 700 }, undefined);
  expect(chooseWindow(8, 6400, 8000, visible, before, ahead)).toBe(ahead);
  const elsewhere = { x0: 5000, y0: 900, x1: 5900, y1: 1600 };
  expect(chooseWindow(8, 6400, 8000, elsewhere, before, ahead)).not.toBe(ahead);
});

test('a page without marks in the file is asked for without any; another with those that are left', () => {
  const left = [9, 4].map((object) => ({ kind: 'foreign', origin: { object } })) as Annotation[];
  expect(fileMarks({ hasMarks: true }, [...left, { kind: 'ink' } as Annotation])).toEqual([4, 9]);
  expect(fileMarks({ hasMarks: true }, [])).toEqual([]);
  expect(fileMarks({ hasMarks: false }, [])).toBeUndefined();
});
