import type { Page } from '@stylet/core/api';
import { GAP, PIXELS_PER_POINT, clampZoom, findPage, fittingZoom, layOut, pageAt } from './layout';

const page = (label: string, width = 600, height = 800, rotation: 0 | 90 = 0): Page => ({
  id: label,
  label,
  width,
  height,
  rotation,
  sourceIndex: 0,
});
const book = [page('i'), page('ii'), page('1'), page('2', 600, 800, 90), page('A-1')];

test('100 % is true size: CSS has 96 pixels to the inch, PDF 72 points', () => {
  expect(layOut([page('1')], 1).pages[0]).toEqual({
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

test('the page at a height is found at every height', () => {
  const layout = layOut(book, 0.75);
  for (let y = 0; y < layout.height; y += 37) {
    const expected = Math.max(0, layout.pages.filter(({ top }) => top <= y).length - 1);
    expect(pageAt(layout, y)).toBe(expected);
  }
});

test('fitting fills the width or shows the whole page, within 25–800 %', () => {
  const view = { width: 1000, height: 700 };
  expect(layOut(book, fittingZoom(book, 0, view, 'width')).width).toBeCloseTo(1000);
  const byPage = layOut([book[0]], fittingZoom(book, 0, view, 'page')).pages[0];
  expect(byPage.height).toBeCloseTo(700 - 2 * GAP);
  expect([clampZoom(0.01), clampZoom(99)]).toEqual([0.25, 8]);
});

test('a page is found by its label first, by its number else', () => {
  expect(findPage(book, 'ii')).toBe(1);
  expect(findPage(book, ' a-1 ')).toBe(4);
  expect(findPage(book, '1')).toBe(2);
  expect(findPage(book, '5')).toBe(4);
  expect(findPage(book, '6')).toBeUndefined();
  expect(findPage(book, '')).toBeUndefined();
});
