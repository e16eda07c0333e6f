import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { polygonArea } from 'd3-polygon';
import { transform, type Point } from '../geometry/index';
import { frameParts, gripAt } from '../selection/index';
import {
  POINTS_PER_PIXEL,
  boxCrop,
  cropBox,
  cropTo,
  dragCrop,
  isPictureOfPixels,
  placing,
} from './index';

const unit: [number, number][] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];
const pairs = (points: readonly Point[]): [number, number][] => points.map(({ x, y }) => [x, y]);

/** Star-shaped outlines about a point, which do not cross themselves, partly beside the picture. */
const outlines = fc
  .tuple(
    fc.double({ min: -0.3, max: 1.3, noNaN: true }),
    fc.double({ min: -0.3, max: 1.3, noNaN: true }),
    fc.array(fc.double({ min: 0.05, max: 1, noNaN: true }), { minLength: 5, maxLength: 40 }),
  )
  .map(([x, y, radii]) =>
    radii.map((r, i) => ({
      x: x + r * Math.cos((2 * Math.PI * i) / radii.length),
      y: y + r * Math.sin((2 * Math.PI * i) / radii.length),
    })),
  );

// The npm package polygon-clipping (M. Fogel) as the reference; areas by d3-polygon.
test('a crop is what a kept clipping library leaves of an outline on the picture', () => {
  fc.assert(
    fc.property(outlines, (outline) => {
      const reference = polygonClipping.intersection([pairs(outline)], [unit]);
      const area = reference.reduce((sum, [ring]) => sum + Math.abs(polygonArea(ring as never)), 0);
      const crop = cropTo(outline);
      expect(crop ? Math.abs(polygonArea(pairs(crop))) : 0).toBeCloseTo(area, 4);
      for (const { x, y } of crop ?? []) {
        expect(Math.min(x, y)).toBeGreaterThanOrEqual(-1e-9);
        expect(Math.max(x, y)).toBeLessThanOrEqual(1 + 1e-9);
      }
    }),
  );
});

test('a crop has no more points than a picture may have, and keeps its area', () => {
  const ring = Array.from({ length: 9000 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 9000;
    return { x: 0.5 + 0.4 * Math.cos(angle), y: 0.5 + 0.4 * Math.sin(angle) };
  });
  const crop = cropTo(ring)!;
  expect(crop.length).toBeLessThanOrEqual(2000);
  expect(Math.abs(polygonArea(pairs(crop)))).toBeCloseTo(Math.PI * 0.16, 3);
});

test('a slip of the hand and an outline beside the picture crop nothing', () => {
  expect(cropTo([{ x: 0.5, y: 0.5 }])).toBeUndefined();
  expect(
    cropTo([
      { x: 2, y: 2 },
      { x: 3, y: 2 },
      { x: 3, y: 3 },
    ]),
  ).toBeUndefined();
});

test('a grip of a crop moves its own sides, stays on the picture and leaves something', () => {
  const point = fc.record({
    x: fc.double({ min: -2, max: 3, noNaN: true }),
    y: fc.double({ min: -2, max: 3, noNaN: true }),
  });
  const box = { x0: 0.2, y0: 0.3, x1: 0.7, y1: 0.9 };
  fc.assert(
    fc.property(point, fc.constantFrom(...frameParts), (to, grip) => {
      const after = dragCrop(box, grip, to);
      expect(after.x0).toBeGreaterThanOrEqual(0);
      expect(after.x1).toBeLessThanOrEqual(1);
      expect(after.x1).toBeGreaterThan(after.x0);
      expect(after.y1).toBeGreaterThan(after.y0);
      const share = gripAt(grip);
      if (share?.x !== 0) expect(after.x0).toBe(box.x0);
      if (share?.x !== 1) expect(after.x1).toBe(box.x1);
      if (share?.y !== 0) expect(after.y0).toBe(box.y0);
      if (share?.y !== 1) expect(after.y1).toBe(box.y1);
    }),
  );
});

test('a crop that is the whole picture is none', () => {
  expect(boxCrop({ x0: 0, y0: 0, x1: 1, y1: 1 })).toBeUndefined();
  expect(cropBox(undefined)).toEqual({ x0: 0, y0: 0, x1: 1, y1: 1 });
  const box = { x0: 0.1, y0: 0.2, x1: 0.5, y1: 1 };
  expect(cropBox(boxCrop(box))).toEqual(box);
});

test.each([0, 90, 180, 270] as const)(
  'on a page turned by %d° a picture stands upright, about its point, in its own proportions',
  (rotation) => {
    const page = { width: 500, height: 700, rotation };
    const at = { x: 260, y: 330 };
    // 96 pixels to the inch, 72 points (CSS Values and Units 4, 6.2).
    const size = { width: 120 * POINTS_PER_PIXEL, height: 60 * POINTS_PER_PIXEL };
    expect(size).toEqual({ width: 90, height: 45 });
    const map = placing(size, at, page);
    const [tl, tr, bl] = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 0, y: 1 },
    ].map((p) => transform(map, p));
    expect(transform(map, { x: 0.5, y: 0.5 }).x).toBeCloseTo(at.x);
    expect(transform(map, { x: 0.5, y: 0.5 }).y).toBeCloseTo(at.y);
    expect(Math.hypot(tr.x - tl.x, tr.y - tl.y)).toBeCloseTo(90);
    expect(Math.hypot(bl.x - tl.x, bl.y - tl.y)).toBeCloseTo(45);
    // ISO 32000-1, 7.7.3.3: /Rotate turns clockwise, so “up” on the page is turned the other way.
    const up = Math.atan2(tl.y - bl.y, tl.x - bl.x);
    const turned = ((Math.round((up * 180) / Math.PI) + 90 + rotation + 720) % 360) + 0;
    expect(turned).toBe(0);
  },
);

test('a large picture is made to fit, and none hangs over the page’s edge', () => {
  const page = { width: 400, height: 300, rotation: 0 } as const;
  const [width, , , height, x, y] = placing({ width: 4000, height: 1000 }, { x: 5, y: 295 }, page);
  expect(width).toBeCloseTo(240);
  expect(height).toBeCloseTo(60);
  expect([x, y]).toEqual([0, 240]);
});

test('files of pixels are known by how they begin', () => {
  const begins = (...bytes: number[]): boolean => isPictureOfPixels(Uint8Array.from(bytes));
  expect(begins(0xff, 0xd8, 0xff, 0xe0)).toBe(true);
  expect(begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)).toBe(true);
  const webp = [...'RIFFxxxxWEBPVP8 '].map((c) => c.charCodeAt(0));
  expect(begins(...webp)).toBe(true);
  expect(begins(...[...'RIFFxxxxWAVEfmt '].map((c) => c.charCodeAt(0)))).toBe(false);
  expect(begins(...[...'<svg xmlns='].map((c) => c.charCodeAt(0)))).toBe(false);
  expect(begins()).toBe(false);
});
