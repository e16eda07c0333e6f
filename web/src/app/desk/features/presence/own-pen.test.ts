import { newId } from '@stylet/core/document';
import type { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { OwnPen } from './own-pen';

/** A page of 200 by 100 points that is turned by a quarter, shown at twice its size with its corner at 10, 20. */
const page = { id: newId(), width: 200, height: 100, rotation: 90 };
const pages = {
  at: (x: number) =>
    x < 1000 ? { page, rect: { left: 10, top: 20, width: 200, height: 400 } } : undefined,
} as unknown as PagesOnScreen;

const event = (type: string, clientX: number, clientY: number, pointerType = 'pen') =>
  ({
    type,
    clientX,
    clientY,
    pointerType,
    getCoalescedEvents: () => [],
  }) as unknown as PointerEvent;

test('what a pen does is told in page space, each part going on where the last ended', () => {
  const pen = new OwnPen(pages);
  pen.saw(event('pointerdown', 210, 20));
  pen.saw(event('pointermove', 210, 220));
  // ISO 32000, 8.3.2.3 and 7.7.3.3 (/Rotate is clockwise): the upper right corner as shown is the page's origin.
  expect(pen.next(false)).toEqual({
    pageId: page.id,
    stroke: 1,
    from: 0,
    points: [0, 0, 100, 0],
    fades: false,
  });
  pen.saw(event('pointermove', 10, 220));
  expect(pen.next(false)).toMatchObject({ stroke: 1, from: 2, points: [100, 100] });
  expect(pen.next(false)).toBeUndefined();
});

test('a pen that is only near is a point; fingers and places off the pages are nothing', () => {
  const pen = new OwnPen(pages);
  pen.saw(event('pointermove', 110, 120));
  pen.saw(event('pointermove', 210, 20));
  expect(pen.next(false)).toMatchObject({ stroke: null, points: [0, 0] });
  pen.saw(event('pointerdown', 210, 20, 'touch'));
  expect(pen.next(false)).toBeUndefined();
  pen.saw(event('pointermove', 2000, 20));
  expect(pen.next(false)).toBeUndefined();
});

test('more points than go at once are thinned, the last among them', () => {
  const pen = new OwnPen(pages);
  pen.saw(event('pointerdown', 210, 20));
  for (let i = 0; i < 500; i++) pen.saw(event('pointermove', 210 - i / 10, 20 + i / 2));
  const { points } = pen.next(false)!;
  expect(points.length).toBe(120);
  expect(points.slice(-2)).toEqual([124.8, 25]);
});

test('what points and fades goes on though nothing is pressed', () => {
  const pen = new OwnPen(pages);
  pen.saw(event('pointermove', 210, 20));
  const first = pen.next(true)!;
  pen.saw(event('pointermove', 210, 40));
  expect([first.stroke, pen.next(true)]).toMatchObject([1, { stroke: 1, from: 1, fades: true }]);
});
