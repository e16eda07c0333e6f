import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Page } from '@stylet/core/api';
import { distance } from '@stylet/core/geometry';
import { alongEdge, onEdge } from '@stylet/core/guides';
import { ViewState } from '../../platform/view/view-state';
import { Guides } from './guides';

const page = (rotation: Page['rotation']): Page =>
  ({ id: 'a', label: '1', width: 600, height: 800, rotation, sourceIndex: 0 }) as Page;

let guides: Guides;
const zoom = signal(0.75);
beforeEach(() => {
  zoom.set(0.75);
  const view = {
    pages: signal([page(0)]),
    zoom,
    left: signal(0),
    top: signal(0),
    size: signal({ width: 600, height: 800 }),
    currentPage: signal(0),
    inset: signal(0),
    layout: signal({ width: 600, pages: [{ left: 0, top: 0, width: 600, height: 800 }] }),
  };
  TestBed.configureTestingModule({ providers: [Guides, { provide: ViewState, useValue: view }] });
  guides = TestBed.inject(Guides);
});
const ruler = () => guides.guides()[0];

test('a guide is laid in the middle of what shows, and taken away again', () => {
  guides.toggle('ruler');
  expect(ruler().at).toEqual({ x: 300, y: 400 });
  expect(guides.isLaid('ruler')).toBe(true);
  guides.toggle('setSquare');
  expect(guides.guides()).toHaveLength(2);
  guides.toggle('ruler');
  expect(guides.guides().map(({ kind }) => kind)).toEqual(['setSquare']);
});

test('on the screen it is as long at every zoom, and lies where it lay on the page', () => {
  guides.toggle('ruler');
  const pixels = ruler().length * guides.scale();
  zoom.set(3);
  expect(ruler().length * guides.scale()).toBeCloseTo(pixels);
  expect(ruler().at).toEqual({ x: 300, y: 400 });
});

test('moves and turns add up, however quickly they come; only grips settle at 15°', () => {
  guides.toggle('ruler');
  for (let i = 0; i < 14; i++) guides.turnBy('ruler', 1);
  guides.moveBy('ruler', 5, -5);
  guides.moveBy('ruler', 5, -5);
  expect(ruler().angle).toBeCloseTo(14);
  expect(ruler().at).toEqual({ x: 310, y: 390 });
  guides.turnTo('ruler', 44.3);
  expect(ruler().angle).toBe(45);
});

test.each([0, 90, 180, 270] as const)(
  'a page turned by %i° is guided along the edge that shows',
  (rotation) => {
    guides.toggle('ruler');
    const shown = page(rotation);
    const edge = Array.from({ length: 41 }, (_, i) => 20 * i)
      .flatMap((x) => Array.from({ length: 200 }, (_, i) => ({ x, y: 4 * i })))
      .map((p) => ({ p, edge: guides.edgeFor(shown, p) }))
      .find((found) => found.edge);
    expect(edge).toBeDefined();
    const { p, edge: found } = edge!;
    // Within the reach of the edge, in points of the page.
    expect(distance(onEdge(found!, p), p)).toBeLessThanOrEqual(14 / guides.scale() + 1e-6);
    expect(alongEdge(found!, found!.to)).toBeCloseTo(ruler().length);
    // Level as shown: upright in the space of a page that lies on its side.
    const isLevel = Math.abs(found!.from.y - found!.to.y) < 1e-6;
    expect(isLevel).toBe(rotation % 180 === 0);
  },
);

test('another page is not guided', () => {
  guides.toggle('ruler');
  expect(guides.edgeFor({ ...page(0), id: 'b' }, { x: 300, y: 367 })).toBeUndefined();
});
