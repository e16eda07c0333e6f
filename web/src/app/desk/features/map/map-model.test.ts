import type { Page } from '@stylet/core/api';
import {
  documentState,
  newId,
  outlineTree,
  type Annotation,
  type Landmark,
} from '@stylet/core/document';
import fc from 'fast-check';
import { bookmarksOn, chaptersOf, densityOf, downTo, mapScale, pageAtShare } from './map-model';

const page = (height: number): Page => ({
  id: newId(),
  label: '',
  order: 'a0',
  source: 'f'.repeat(64),
  width: 100,
  height,
  rotation: 0,
  sourceIndex: 0,
  hasMarks: false,
});

test('a share of the height is a place on a page, and back', () => {
  const heights = fc.array(fc.integer({ min: 50, max: 900 }), { minLength: 1, maxLength: 30 });
  fc.assert(
    fc.property(heights, fc.double({ min: 0, max: 1, noNaN: true }), (all, at) => {
      const scale = mapScale(all.map(page));
      const { pageIndex, share } = pageAtShare(scale, at);
      expect(downTo(scale, pageIndex, share)).toBeCloseTo(at, 9);
      expect(share).toBeGreaterThanOrEqual(0);
      expect(share).toBeLessThanOrEqual(1);
    }),
  );
});

test('chapters go from one entry at the top of the outline to the next', () => {
  const pages = [page(100), page(300), page(100)];
  const entry = (title: string, at: number, y?: number, parentId?: string): Landmark => ({
    kind: 'outline',
    id: newId(),
    order: `a${at}`,
    title,
    open: true,
    place: { pageId: pages[at].id, ...(y === undefined ? {} : { y }) },
    ...(parentId ? { parentId } : {}),
  });
  const first = entry('One', 0);
  const entries = [first, entry('Two', 1, 150), entry('Under one', 0, 50, first.id)];
  const tree = outlineTree(documentState('', [], entries).landmarks);
  expect(chaptersOf(mapScale(pages), tree)).toEqual([
    { title: 'One', from: 0, to: 0.5 },
    { title: 'Two', from: 0.5, to: 1 },
  ]);
});

test('bookmarks and what is written lie where their pages are', () => {
  const pages = [page(100), page(100)];
  const bookmark: Landmark = {
    kind: 'bookmark',
    id: newId(),
    place: { pageId: pages[1].id, y: 50 },
    title: 'Here',
    created: '2026-09-01T08:00:00.000Z',
  };
  const scale = mapScale(pages);
  const { landmarks } = documentState('', [], [bookmark]);
  expect(bookmarksOn(scale, landmarks)).toEqual([{ at: 0.75, color: undefined }]);
  const mark = {
    kind: 'foreign',
    id: newId(),
    pageId: pages[1].id,
    order: 'a0',
    box: { x0: 0, y0: 40, x1: 10, y1: 60 },
  } as unknown as Annotation;
  const { annotations } = documentState('', [mark]);
  const density = densityOf(scale, annotations, new Map(), 4);
  expect([...density.get('others')!]).toEqual([0, 0, 0, 1]);
  const unread = densityOf(scale, {}, new Map([[pages[1].id, 8]]), 4);
  expect([...unread.get('ink')!]).toEqual([0, 0, 4, 4]);
});
