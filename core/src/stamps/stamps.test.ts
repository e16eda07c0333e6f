import fc from 'fast-check';
import { cropOutline } from '../document/index';
import { boundsOf, pageView, transform, type Point } from '../geometry/index';
import { samplesFromBase64 } from '../ink/index';
import {
  SHIPPED_SIZE,
  drawingsIn,
  shippedInk,
  shippedSheets,
  sizeMade,
  stampAt,
  stampBetween,
  type Raster,
} from './index';
import { strokeIn } from './strokes';

const side = fc.double({ min: 5, max: 400, noNaN: true });
const at = fc.record({
  x: fc.double({ min: -50, max: 900, noNaN: true }),
  y: fc.double({ min: -50, max: 900, noNaN: true }),
});
const share = fc.double({ min: 0.05, max: 0.9, noNaN: true });
const stamp = fc.record({
  size: fc.record({ width: side, height: side }),
  crop: fc.option(
    fc.tuple(share, share).map(([w, h]) => [
      { x: 0.05, y: 0.02 },
      { x: 0.05 + w, y: 0.02 },
      { x: 0.05 + w, y: 0.02 + h },
    ]),
    { nil: undefined },
  ),
});
const page = fc.record({
  width: fc.constant(800),
  height: fc.constant(600),
  rotation: fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const),
});

/** The box that shows of a stamp, as the page is shown. */
function shownBox(
  { crop }: { crop?: readonly Point[] | undefined },
  matrix: Parameters<typeof transform>[0],
  { width, height, rotation }: { width: number; height: number; rotation: 0 | 90 | 180 | 270 },
) {
  const corners = crop ?? [
    { x: 0, y: 0 },
    { x: 1, y: 1 },
  ];
  const view = pageView(width, height, rotation, 1);
  return boundsOf(corners.map((p) => transform(view, transform(matrix, p))))!;
}

test('a stamp that is tapped lies about the point, upright and as large as it was made', () => {
  fc.assert(
    fc.property(stamp, at, page, ({ size, crop }, point, sheet) => {
      const one = { size, ...(crop ? { crop } : {}) };
      const box = shownBox(one, stampAt(one, point, sheet), sheet);
      const middle = transform(pageView(sheet.width, sheet.height, sheet.rotation, 1), point);
      expect(box.x1 - box.x0).toBeCloseTo(size.width, 6);
      expect(box.y1 - box.y0).toBeCloseTo(size.height, 6);
      expect((box.x0 + box.x1) / 2).toBeCloseTo(middle.x, 6);
      expect((box.y0 + box.y1) / 2).toBeCloseTo(middle.y, 6);
    }),
  );
});

test('a stamp that is dragged keeps its proportions, and reaches from where it was pressed to the pen', () => {
  fc.assert(
    fc.property(stamp, at, at, page, ({ size, crop }, from, to, sheet) => {
      const one = { size, ...(crop ? { crop } : {}) };
      const box = shownBox(one, stampBetween(one, from, to, sheet), sheet);
      const view = pageView(sheet.width, sheet.height, sheet.rotation, 1);
      const [a, b] = [transform(view, from), transform(view, to)];
      const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
      expect(width / height).toBeCloseTo(size.width / size.height, 6);
      // The corner stays, and the pen is within, on an edge of it unless it is as small as it can be.
      expect(b.x < a.x ? box.x1 : box.x0).toBeCloseTo(a.x, 6);
      expect(b.y < a.y ? box.y1 : box.y0).toBeCloseTo(a.y, 6);
      expect(width).toBeGreaterThan(Math.abs(b.x - a.x) - 1e-6);
      expect(height).toBeGreaterThan(Math.abs(b.y - a.y) - 1e-6);
    }),
  );
});

test('the size of a part is its share of the whole', () => {
  const crop =
    [...cropOutline({})].length > 0
      ? [
          { x: 0.5, y: 0 },
          { x: 1, y: 0.25 },
        ]
      : [];
  expect(sizeMade({ width: 200, height: 80, crop }, 0.75)).toEqual({ width: 75, height: 15 });
  expect(sizeMade({ width: 200, height: 80 }, 1)).toEqual({ width: 200, height: 80 });
});

/** A raster of which each letter is a pixel: `#` is drawn, all else is paper. */
function raster(rows: readonly string[], paper: readonly number[], ink: readonly number[]): Raster {
  const data = rows.flatMap((row) => [...row].flatMap((c) => (c === '#' ? ink : paper)));
  return { width: rows[0].length, height: rows.length, data: Uint8ClampedArray.from(data) };
}

test.each([
  ['nothing', [0, 0, 0, 0]],
  ['white paper', [255, 255, 255, 255]],
  ['noisy yellow paper', [250, 240, 200, 255]],
])('drawings on %s are told apart where the gap is wide enough', (_, paper) => {
  const rows = [
    '............',
    '.###....###.',
    '.#.#....#...',
    '.###....###.',
    '............',
    '............',
    '....####....',
    '....####....',
    '....####....',
    '............',
  ];
  const picture = raster(rows, paper, [20, 30, 120, 255]);
  expect(drawingsIn(picture, 1)).toEqual([
    { x0: 1, y0: 1, x1: 4, y1: 4 },
    { x0: 8, y0: 1, x1: 11, y1: 4 },
    { x0: 4, y0: 6, x1: 8, y1: 9 },
  ]);
  expect(drawingsIn(picture, 6)).toEqual([{ x0: 1, y0: 1, x1: 11, y1: 9 }]);
  expect(drawingsIn(raster(['....', '....'], paper, paper), 1)).toEqual([]);
});

/** Flood fill over a distance (published algorithm: connected components by search in breadth), slowly. */
function bySearch({ width, height, data }: Raster, gap: number): string[] {
  const isDrawn = (x: number, y: number): boolean => data[4 * (y * width + x) + 3] > 0;
  const seen = new Set<number>();
  const boxes: string[] = [];
  for (let start = 0; start < width * height; start++) {
    if (seen.has(start) || !isDrawn(start % width, Math.floor(start / width))) continue;
    const queue = [start];
    seen.add(start);
    const box = { x0: width, y0: height, x1: 0, y1: 0 };
    for (const cell of queue) {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      box.x0 = Math.min(box.x0, x);
      box.y0 = Math.min(box.y0, y);
      box.x1 = Math.max(box.x1, x + 1);
      box.y1 = Math.max(box.y1, y + 1);
      for (let j = Math.max(0, y - gap); j <= Math.min(height - 1, y + gap); j++)
        for (let i = Math.max(0, x - gap - 1); i <= Math.min(width - 1, x + gap + 1); i++) {
          const next = j * width + i;
          if (seen.has(next) || !isDrawn(i, j)) continue;
          seen.add(next);
          queue.push(next);
        }
    }
    if (box.x1 - box.x0 >= 3 || box.y1 - box.y0 >= 3)
      boxes.push([box.x0, box.y0, box.x1, box.y1].join(' '));
  }
  return boxes.sort();
}

test('drawings are those that a search finds', () => {
  const cells = fc.array(fc.constantFrom(0, 0, 0, 0, 255), {
    minLength: 16 * 12,
    maxLength: 16 * 12,
  });
  fc.assert(
    fc.property(cells, fc.integer({ min: 1, max: 3 }), (alphas, gap) => {
      const data = Uint8ClampedArray.from(alphas.flatMap((alpha) => [0, 0, 0, alpha]));
      // Clear corners: the paper is nothing.
      for (const i of [0, 15, 11 * 16, 12 * 16 - 1]) data[4 * i + 3] = 0;
      const picture = { width: 16, height: 12, data };
      const found = drawingsIn(picture, gap).map(({ x0, y0, x1, y1 }) =>
        [x0, y0, x1, y1].join(' '),
      );
      expect(found.sort()).toEqual(bySearch(picture, gap));
    }),
  );
});

test('every shipped stamp is drawn within its square, under a name of its own', () => {
  for (const { stamps } of shippedSheets) {
    expect(new Set(stamps.map(({ name }) => name)).size).toBe(stamps.length);
    for (const one of stamps)
      for (const { samples } of shippedInk(one)) {
        const { x, y, length } = samplesFromBase64(samples);
        expect(length).toBeGreaterThan(1);
        for (const value of [...x, ...y]) {
          expect(value).toBeGreaterThanOrEqual(0);
          expect(value).toBeLessThanOrEqual(SHIPPED_SIZE);
        }
      }
  }
});

test('words that are no stroke are refused', () => {
  expect(() => strokeIn('L 1,2 x')).toThrow(RangeError);
  expect(strokeIn('O 50,50 10,10').at(0)).toEqual(strokeIn('O 50,50 10,10').at(-1));
});
