import type { Page } from '@stylet/core/api';
import fc from 'fast-check';
import {
  GAP,
  PIXELS_PER_POINT,
  arrangements,
  clampZoom,
  findPage,
  fittingZoom,
  layOut,
  pageAt,
  pageLookedAt,
  pagesIn,
  type Arrangement,
} from './layout';

const page = (label: string, width = 600, height = 800, rotation: 0 | 90 = 0): Page => ({
  id: label,
  label,
  order: 'a0',
  width,
  height,
  rotation,
  sourceIndex: 0,
  source: '0'.repeat(64),
  hasMarks: false,
});
const book = [page('i'), page('ii'), page('1'), page('2', 600, 800, 90), page('A-1')];

test('100 % is true size: CSS has 96 pixels to the inch, PDF 72 points', () => {
  expect(layOut([page('1')], 1).pages[0]).toEqual({
    left: GAP,
    top: GAP,
    width: 800,
    height: 800 * PIXELS_PER_POINT,
  });
});

test('pages follow each other, turned ones lying down', () => {
  const { pages } = layOut(book, 0.75);
  expect(pages.map(({ width, height }) => [width, height])).toEqual([
    [600, 800],
    [600, 800],
    [600, 800],
    [800, 600],
    [600, 800],
  ]);
  pages
    .slice(1)
    .forEach((placed, i) => expect(placed.top).toBeCloseTo(pages[i].top + pages[i].height + GAP));
});

test('across, pages follow each other in one row, in the middle of its height, and are found by where they lie', () => {
  const layout = layOut(book, 0.75, 'across');
  const { pages, height } = layout;
  expect(layout.rows).toHaveLength(1);
  pages.slice(1).forEach((placed, i) => {
    expect(placed.left).toBeCloseTo(pages[i].left + pages[i].width + GAP);
    expect(placed.top + placed.height / 2).toBeCloseTo(height / 2);
  });
  pages.forEach(({ left, width }, i) => {
    const view = { left: left + width / 2 - 300, top: 0, width: 600, height: 400 };
    expect(pageLookedAt(layout, view)).toBe(i);
    const [first, last] = pagesIn(layout, view, 0);
    expect(first).toBeLessThanOrEqual(i);
    expect(last).toBeGreaterThanOrEqual(i);
    expect(last - first).toBeLessThan(3);
  });
});

test('the page at a height is found at every height', () => {
  const layout = layOut(book, 0.75);
  for (let y = 0; y < layout.height; y += 37) {
    const expected = Math.max(0, layout.pages.filter(({ top }) => top <= y).length - 1);
    expect(pageAt(layout, y)).toBe(expected);
  }
});

test('fitting fills the width or shows the whole page, within 10–800 %', () => {
  const view = { width: 1000, height: 700 };
  expect(layOut(book, fittingZoom(book, 0, view, 'width')).width).toBeCloseTo(1000);
  const byPage = layOut([book[0]], fittingZoom(book, 0, view, 'page')).pages[0];
  expect(byPage.height).toBeCloseTo(700 - 2 * GAP);
  expect([clampZoom(0.01), clampZoom(99)]).toEqual([0.1, 8]);
});

test('pages lie side by side: two, two after a cover, or as many as fit', () => {
  const rows = (arrangement: Arrangement, room = 0): number[][] =>
    layOut(book, 0.75, arrangement, room).rows.map(({ first, last }) => [first, last]);
  expect(rows('one')).toHaveLength(5);
  expect(rows('two')).toEqual([
    [0, 1],
    [2, 3],
    [4, 4],
  ]);
  expect(rows('twoAfterCover')).toEqual([
    [0, 0],
    [1, 2],
    [3, 4],
  ]);
  // The widest is 800 pixels; three and their gaps need 2,480.
  expect(rows('fitting', 2479)).toHaveLength(3);
  expect(rows('fitting', 2480)).toHaveLength(2);
});

test('four or nine are in view together, whole', () => {
  const sheets = Array.from({ length: 18 }, (_, i) => page(`${i}`, 600, 800));
  const view = { width: 1200, height: 700 };
  for (const [arrangement, count] of [
    ['four', 4],
    ['nine', 9],
  ] as const) {
    const zoom = fittingZoom(sheets, 0, view, 'page', arrangement);
    const { pages: placed, width } = layOut(sheets, zoom, arrangement);
    const last = placed[count - 1];
    expect(last.top + last.height).toBeLessThanOrEqual(700 - GAP + 1e-6);
    expect(width).toBeLessThanOrEqual(1200 + 1e-6);
    expect(placed[count].top).toBeGreaterThan(700 - GAP);
  }
});

test('no two pages overlap, however they are laid out', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...arrangements),
      fc.double({ min: 0.1, max: 2, noNaN: true }),
      fc.integer({ min: 200, max: 4000 }),
      (arrangement, zoom, room) => {
        const layout = layOut(book, zoom, arrangement, room);
        layout.pages.forEach((a, i) => {
          expect(a.left).toBeGreaterThanOrEqual(GAP - 1e-6);
          expect(a.left + a.width).toBeLessThanOrEqual(layout.width - GAP + 1e-6);
          expect(pageAt(layout, a.top, a.left)).toBe(i);
          layout.pages.slice(i + 1).forEach((b) => {
            const isBeside = a.left + a.width < b.left || b.left + b.width < a.left;
            expect(isBeside || a.top + a.height < b.top).toBe(true);
          });
        });
      },
    ),
  );
});

test('fitting fits the widest row, or the height', () => {
  const view = { width: 1000, height: 700 };
  for (const arrangement of ['two', 'twoAfterCover'] as const) {
    const zoom = fittingZoom(book, 0, view, 'width', arrangement);
    expect(layOut(book, zoom, arrangement).width).toBeCloseTo(1000);
  }
  const zoom = fittingZoom(book, 0, view, 'height');
  expect(layOut(book, zoom).pages[0].height).toBeCloseTo(700 - 2 * GAP);
});

test('nine at a time are nine also where pages are turned and of several sizes', () => {
  const view = { width: 1100, height: 700 };
  const mixed = Array.from({ length: 30 }, (_, i) => ({
    ...book[0],
    id: `${i}`,
    rotation: (i % 4 === 0 ? 90 : 0) as 0 | 90,
    width: 595,
    height: i % 7 === 0 ? 1000 : 842,
  }));
  for (const current of [0, 10, 19]) {
    const zoom = fittingZoom(mixed, current, view, 'page', 'nine');
    const { rows, pages } = layOut(mixed, zoom, 'nine');
    const from = rows.findIndex(({ first, last }) => first <= current && current <= last);
    const seen = pages.slice(rows[from].first, rows[Math.min(from + 2, rows.length - 1)].last + 1);
    expect(seen.length).toBe(9);
    const top = Math.min(...seen.map((page) => page.top));
    expect(Math.max(...seen.map((page) => page.top + page.height)) - top).toBeLessThanOrEqual(700);
    expect(Math.min(...seen.map((page) => page.left))).toBeGreaterThanOrEqual(0);
    expect(Math.max(...seen.map((page) => page.left + page.width))).toBeLessThanOrEqual(1100);
  }
});

test('a page is found by its label first, by its number else', () => {
  expect(findPage(book, 'ii')).toBe(1);
  expect(findPage(book, ' a-1 ')).toBe(4);
  expect(findPage(book, '1')).toBe(2);
  expect(findPage(book, '5')).toBe(4);
  expect(findPage(book, '6')).toBeUndefined();
  expect(findPage(book, '')).toBeUndefined();
});
