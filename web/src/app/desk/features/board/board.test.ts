import fc from 'fast-check';
import {
  boardLayout,
  gapAt,
  gapLine,
  mostTiles,
  tileAt,
  tilesBetween,
  tilesIn,
} from './board-layout';
import { BoardSelection } from './board-selection';
import { filtered, sortPages } from './board-filter';
import type { Page } from '@stylet/core/api';
import type { Annotation, Landmark } from '@stylet/core/document';

const layouts = fc
  .record({
    width: fc.integer({ min: 320, max: 3800 }),
    across: fc.integer({ min: 3, max: 12 }),
    count: fc.integer({ min: 1, max: 200 }),
    aspect: fc.double({ min: 0.3, max: 3, noNaN: true }),
  })
  .map(({ width, across, count, aspect }) => boardLayout(width, across, count, aspect));

test('what is let go on the left half of a page comes before it, on the right half behind it', () => {
  fc.assert(
    fc.property(layouts, fc.nat(199), (layout, n) => {
      const index = n % layout.count;
      const { x, y } = tileAt(layout, index);
      const { width, height } = layout.cell;
      expect(gapAt(layout, x + width * 0.3, y + height / 2)).toBe(index);
      expect(gapAt(layout, x + width * 0.7, y + height / 2)).toBe(index + 1);
      // The line stands on the side where it is let go.
      const behind = gapLine(layout, index + 1, x + width * 0.7);
      expect(Math.abs(behind.x - (x + width))).toBeLessThan(width / 2);
      expect(behind.y).toBeCloseTo(y);
    }),
  );
});

test('the tiles between two heights are whole rows, and all that show', () => {
  fc.assert(
    fc.property(layouts, fc.double({ min: 0, max: 1, noNaN: true }), (layout, share) => {
      const from = share * layout.height;
      const { first, last } = tilesBetween(layout, from, from + 500);
      expect(last - first + 1).toBeLessThanOrEqual(mostTiles(layout, 500));
      expect(first % layout.across).toBe(0);
      for (let i = 0; i < layout.count; i++) {
        const { y } = tileAt(layout, i);
        const shows = y < from + 500 && y + layout.cell.height > from;
        if (shows) expect(i >= first && i <= last).toBe(true);
      }
    }),
  );
});

test('a band takes what it touches, whichever way it is drawn', () => {
  const layout = boardLayout(832, 4, 10, 1);
  const at = (index: number) => {
    const { x, y } = tileAt(layout, index);
    return { x: x + layout.cell.width / 2, y: y + layout.cell.height / 3 };
  };
  expect(tilesIn(layout, at(1), at(6))).toEqual([1, 2, 5, 6]);
  expect(tilesIn(layout, at(6), at(1))).toEqual([1, 2, 5, 6]);
  expect(tilesIn(layout, { x: 0, y: 0 }, { x: 5, y: 4000 })).toEqual([]);
});

const listed = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id }));

test('taps choose one, one more, and ranges from the last one chosen', () => {
  const selection = new BoardSelection(() => listed);
  const chosen = (): string => [...selection.ids()].join('');
  selection.tap('b', { adds: false, ranges: false });
  selection.tap('d', { adds: false, ranges: true });
  expect(chosen()).toBe('bcd');
  selection.tap('c', { adds: true, ranges: false });
  expect(chosen()).toBe('bd');
  selection.tap('a', { adds: true, ranges: true });
  expect([...selection.ids()].sort().join('')).toBe('abcd');
  selection.step(Infinity, false);
  expect(selection.focus()).toBe('e');
  selection.clear();
  expect(chosen()).toBe('');
});

test('the board narrows down to pages that are annotated, bookmarked, or hung with keywords', () => {
  const pages = listed as Page[];
  const annotations = {
    a: { 1: { kind: 'ink' } as Annotation },
    b: { 2: { kind: 'link' } as Annotation },
  };
  const landmarks = {
    3: { kind: 'bookmark', place: { pageId: 'c' } } as Landmark,
    4: { kind: 'keyword', place: { pageId: 'd' } } as Landmark,
  };
  const sorts = sortPages(annotations, landmarks, new Set(['e']));
  const ids = (filter: Parameters<typeof filtered>[1]): string =>
    filtered(pages, filter, sorts)
      .map(({ id }) => id)
      .join('');
  // Links are no marks.
  expect(ids('annotated')).toBe('a');
  expect(ids('bookmarked')).toBe('c');
  expect(ids('keywords')).toBe('d');
  expect(ids('found')).toBe('e');
  expect(ids('all')).toBe('abcde');
});
