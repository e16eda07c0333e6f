import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import type { StyletDocument } from '@stylet/core/api';
import { noHistory } from '@stylet/core/document';
import fc from 'fast-check';
import { documentActions, documentFeature } from '../document/document.reducer';
import { pageAt } from '../paper/layout';
import { ViewState } from './view-state';

const pages = Array.from({ length: 40 }, (_, i) => ({
  id: `${i}`,
  label: `${i + 1}`,
  width: 600,
  height: 800,
  rotation: 0,
  sourceIndex: i,
  hasMarks: false,
}));
let view: ViewState;

beforeEach(() => {
  localStorage.clear();
  TestBed.configureTestingModule({
    providers: [provideStore({ document: documentFeature.reducer }), ViewState],
  });
  const store = TestBed.inject(Store);
  store.dispatch(documentActions.opened({ id: 'book' }));
  load(pages);
  view = TestBed.inject(ViewState);
  view.size.set({ width: 1000, height: 700 });
  view.scrollTo = (left, top) => {
    view.left.set(left);
    view.top.set(top);
  };
});

/** The document has just these pages, in this order. */
function load(some: typeof pages): void {
  const document = {
    id: 'book',
    title: 'Book',
    pages: some.map((page, i) => ({ ...page, order: `a${String(i).padStart(3, '0')}` })),
    outline: [],
    revision: 0,
  } as unknown as StyletDocument;
  TestBed.inject(Store).dispatch(
    documentActions.loaded({ document, annotations: [], waiting: [], history: noHistory }),
  );
}

/** The page under a height of the view, and how far down it that is. */
const under = (y: number): [number, number] => {
  const layout = view.layout();
  const index = pageAt(layout, view.top() + y);
  return [index, (view.top() + y - layout.pages[index].top) / layout.pages[index].height];
};

test('a turned view shows the same page turned, and four turns are none', () => {
  view.jump({ pageIndex: 7 });
  const seen: number[] = [];
  for (let i = 0; i < 4; i++) {
    view.turnView();
    expect(view.currentPage()).toBe(7);
    seen.push(view.pages()[7].rotation);
  }
  expect(seen).toEqual([90, 180, 270, 0]);
});

test('what is under the pointer stays there, whatever the zoom', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 38 }),
      fc.double({ min: 0.05, max: 0.6, noNaN: true }),
      fc.integer({ min: 0, max: 699 }),
      // Smaller, pages fill the width.
      fc.double({ min: 0.3, max: 8, noNaN: true }),
      (page, share, y, zoom) => {
        view.zoom.set(1);
        const layout = view.layout();
        view.top.set(layout.pages[page].top + share * layout.pages[page].height - y);
        const before = under(y);
        view.zoomTo(zoom, { x: 500, y });
        const after = under(y);
        expect(after[0]).toBe(before[0]);
        expect(after[1]).toBeCloseTo(before[1], 6);
      },
    ),
  );
});

test('what is under the pointer stays there where pages lie side by side', () => {
  view.arrange('two');
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 37 }),
      fc.double({ min: 0.05, max: 0.95, noNaN: true }),
      fc.double({ min: 0.3, max: 8, noNaN: true }),
      (page, share, zoom) => {
        view.zoom.set(1);
        const at = (): { x: number; y: number } => {
          const { left, top, width, height } = view.layout().pages[page];
          return { x: view.inset() + left + share * width, y: top + share * height };
        };
        const before = at();
        view.left.set(before.x - 400);
        view.top.set(before.y - 300);
        view.zoomTo(zoom, { x: 400, y: 300 });
        const after = at();
        expect(after.x - view.left()).toBeCloseTo(400, 6);
        expect(after.y - view.top()).toBeCloseTo(300, 6);
      },
    ),
  );
});

test('pages are laid out another way at the page in view', () => {
  view.jump({ pageIndex: 21 });
  view.arrange('two');
  expect(view.currentPage()).toBe(20);
  expect(localStorage.getItem('stylet.arrangement')).toBe('two');
  view.arrange('one');
  expect(view.currentPage()).toBe(20);
});

test('every jump can be taken back, and taken again', () => {
  const start = view.top();
  view.jump({ pageIndex: 10 });
  const first = view.top();
  view.jump({ pageIndex: 20, y: 400 });
  const second = view.top();
  view.back();
  expect(view.top()).toBeCloseTo(first);
  view.back();
  expect(view.top()).toBeCloseTo(start);
  expect(view.canGoBack()).toBe(false);
  view.forward();
  view.forward();
  expect(view.top()).toBeCloseTo(second);
  view.back();
  view.jump({ pageIndex: 5 });
  expect(view.canGoForward()).toBe(false);
});

test('Back and Forward lead to pages, wherever these went', () => {
  view.jump({ pageIndex: 7 });
  view.jump({ pageIndex: 20 });
  view.jump({ pageIndex: 3 });
  load([...pages.slice(20, 30), ...pages.slice(0, 20), ...pages.slice(30)]);
  view.back();
  expect(view.pages()[view.currentPage()].id).toBe('20');
  view.back();
  expect(view.pages()[view.currentPage()].id).toBe('7');
  view.forward();
  expect(view.pages()[view.currentPage()].id).toBe('20');
});

test('Back passes over pages that are gone, and leads nowhere where all are', () => {
  view.jump({ pageIndex: 7 });
  view.jump({ pageIndex: 39 });
  view.jump({ pageIndex: 12 });
  load(pages.slice(0, 30));
  view.back();
  expect(view.currentPage()).toBe(7);
  load(pages.slice(8, 30));
  view.jump({ pageIndex: 2 });
  load(pages.slice(20, 21));
  expect(view.canGoBack()).toBe(false);
  expect(() => view.back()).not.toThrow();
  load([]);
  expect(() => view.back()).not.toThrow();
});

test('fitting the page shows all of the page in view', () => {
  view.jump({ pageIndex: 7 });
  view.fit('page');
  expect(view.layout().pages[7].height).toBeLessThanOrEqual(700);
  expect(under(350)[0]).toBe(7);
});

test('what is to be seen is brought into view, and nothing moves when it is in view', () => {
  view.scrollTo(0, view.layout().pages[3].top);
  const before = view.top();
  view.reveal(3, 100, 200);
  expect(view.top()).toBe(before);
  view.reveal(3, 700, 760);
  const scale = (view.zoom() * 96) / 72;
  const bottom = view.layout().pages[3].top + 760 * scale;
  expect(view.top() + 700).toBeGreaterThanOrEqual(bottom);
  expect(view.top()).toBeLessThan(bottom);
  view.reveal(1, 0, 50);
  expect(view.top()).toBeLessThanOrEqual(view.layout().pages[1].top);
});

test('zoomed out far, pages fill the width; back from there one is where one was', () => {
  view.jump({ pageIndex: 20 });
  const before = view.place();
  view.zoomJust(0.1);
  const { pages, rows } = view.layout();
  const [{ first, last }] = rows;
  const right = pages[last].left + pages[last].width;
  expect(last - first).toBeGreaterThan(5);
  expect(right).toBeGreaterThan(1000 - 2 * pages[0].width);
  view.zoomJust(1);
  expect(view.place().pageIndex).toBe(before.pageIndex);
  expect(view.place().share).toBeCloseTo(before.share, 6);
  // Whoever has gone elsewhere meanwhile stays there.
  view.zoomJust(0.1);
  view.goTo({ pageIndex: 35, share: 0 });
  view.zoomJust(1);
  expect(view.place().pageIndex).toBeGreaterThan(30);
});

test('where all pages fit, zooming in at a page leads to it, however slowly one zooms', () => {
  jest.useFakeTimers();
  const at = view.scrollTo;
  // All fit: there is nowhere to scroll to, until pages are larger than the view.
  view.scrollTo = (left, top) => {
    const { height } = view.layout();
    at(Math.max(0, left), Math.min(Math.max(0, top), Math.max(0, height - 700)));
  };
  view.arrange('fitting');
  view.zoomJust(0.1);
  const page = view.layout().pages[25];
  const about = { x: view.inset() + page.left + page.width / 2, y: page.top + page.height / 2 };
  for (let i = 0; i < 12; i++) {
    view.zoomTo(view.zoom() * Math.exp(0.2), about);
    jest.advanceTimersByTime(1000);
  }
  expect(under(about.y)[0]).toBe(25);
  // It holds on to no page that is gone.
  load(pages.slice(0, 20));
  view.zoomTo(view.zoom() * 1.05, about);
  expect(under(about.y)[0]).toBe(19);
  jest.useRealTimers();
});

test('a view that becomes narrower or wider is fitted again, at the same place, unless one has zoomed', () => {
  const resize = (width: number, height = 700): void =>
    view.resize({ width, height }, { width, height });
  view.isPlaced.set(true);
  resize(1000);
  view.fit('width');
  view.goTo({ pageIndex: 5, share: 0.4 });
  const wide = view.zoom();
  resize(600);
  expect(view.zoom()).toBeLessThan(wide);
  expect(view.layout().width).toBeCloseTo(600, 6);
  expect(view.place().pageIndex).toBe(5);
  expect(view.place().share).toBeCloseTo(0.4, 6);
  // A scroll bar is no other size.
  const narrow = view.zoom();
  view.resize({ width: 585, height: 700 }, { width: 600, height: 700 });
  expect(view.zoom()).toBe(narrow);
  view.zoomTo(1.5);
  resize(900);
  expect(view.zoom()).toBe(1.5);
});
