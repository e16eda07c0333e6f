import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Page } from '@stylet/core/api';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';
import { CloseUp } from './close-up';

const page = (id: string): Page =>
  ({ id, label: id, width: 600, height: 800, rotation: 0, sourceIndex: 0 }) as Page;

// The real one starts a worker, which this environment has not.
jest.mock('../../platform/paper/page-source', () => ({ PageSource: class PageSource {} }));

let closeUp: CloseUp;
beforeEach(() => {
  const view = {
    pages: signal([page('a'), page('b')]),
    zoom: signal(0.75),
    top: signal(0),
    size: signal({ width: 900, height: 700 }),
    currentPage: signal(0),
    reveal: jest.fn(),
    layout: signal({ pages: [{ top: 20, width: 600, height: 800 }] }),
  };
  TestBed.configureTestingModule({
    providers: [
      CloseUp,
      { provide: ViewState, useValue: view },
      { provide: PageSource, useValue: { linesOf: () => Promise.resolve([]) } },
    ],
  });
  closeUp = TestBed.inject(CloseUp);
  closeUp.resize(900, 200);
  closeUp.toggle();
});
const frame = () => closeUp.place()!.frame;
const width = () => frame().x1 - frame().x0;

test('it opens at the left margin, magnified, and shows as much as fits into the strip', () => {
  expect(frame().x0).toBeCloseTo(closeUp.margins().left);
  expect(closeUp.scale()).toBeCloseTo(2.5);
  expect(width() * closeUp.scale()).toBeCloseTo(900);
  expect((frame().y1 - frame().y0) * closeUp.scale()).toBeCloseTo(200);
});

test('written larger it shows less; widened by hand it is magnified less', () => {
  const before = width();
  closeUp.scaleBy(2);
  expect(width()).toBeCloseTo(before / 2);
  closeUp.widen(300);
  expect(width()).toBeCloseTo(300);
  expect(closeUp.scale()).toBeCloseTo(3);
  closeUp.scaleBy(1000);
  expect(closeUp.scale()).toBe(16);
});

test('lines go on to the right margin, then to the next line, then to the next page', () => {
  closeUp.setPitch.set(40);
  closeUp.setMargin('right', 500);
  const left = closeUp.margins().left;
  const ys: number[] = [];
  for (let i = 0; i < 80 && closeUp.place()!.pageIndex === 0; i++) {
    expect(frame().x1).toBeLessThanOrEqual(500 + 1e-6);
    if (Math.abs(frame().x0 - left) < 1e-6) ys.push(frame().y0);
    closeUp.goOn();
  }
  expect(closeUp.place()!.pageIndex).toBe(1);
  expect(frame().x0).toBeCloseTo(left);
  ys.slice(1).forEach((y, i) => expect(y - ys[i]).toBeCloseTo(40));
  expect(ys.at(-1)!).toBeGreaterThan(600);
});

test('margins never cross, and the strip is never too low to write in', () => {
  closeUp.setMargin('left', 5000);
  expect(closeUp.margins().left).toBeLessThan(closeUp.margins().right);
  closeUp.resize(900, 3);
  expect(closeUp.size().height).toBeGreaterThan(100);
  closeUp.toggle();
  expect(closeUp.isOpen()).toBe(false);
});
