import type { TouchGesture } from '@stylet/core/api';
import { touchGestures } from '@stylet/core/api';
import { TapRecogniser } from './tap-recogniser';

let found: TouchGesture[];
let meant: Set<TouchGesture>;
let taps: TapRecogniser;
let penSeen: number;
beforeEach(() => {
  jest.useFakeTimers();
  found = [];
  meant = new Set(touchGestures);
  penSeen = -Infinity;
  taps = new TapRecogniser(
    (gesture) => meant.has(gesture),
    (gesture) => found.push(gesture),
    (time) => time - penSeen < 800,
  );
});
afterEach(() => jest.useRealTimers());

const finger = (id: number, time: number, x = 100 * id, contact = 20) => ({
  id,
  x,
  y: 200,
  time,
  contact,
});
/** So many fingers, for so long. */
function tap(fingers: number, time: number, length = 90): void {
  for (let id = 1; id <= fingers; id++) taps.press(finger(id, time + 8 * id));
  jest.advanceTimersByTime(length);
  for (let id = 1; id <= fingers; id++) taps.lift(id, time + length);
}

test('fingers are counted, however unevenly they come and go', () => {
  meant = new Set(['twoTap', 'threeTap', 'fourTap']);
  for (const fingers of [2, 3, 4]) tap(fingers, fingers * 1000);
  expect(found).toEqual(['twoTap', 'threeTap', 'fourTap']);
});

test('a tap waits for a second only where two of them mean something', () => {
  tap(2, 0);
  expect(found).toEqual([]);
  tap(2, 200);
  expect(found).toEqual(['twoDoubleTap']);
  tap(2, 2000);
  jest.advanceTimersByTime(400);
  expect(found).toEqual(['twoDoubleTap', 'twoTap']);
  meant.delete('threeDoubleTap');
  tap(3, 4000);
  expect(found.at(-1)).toBe('threeTap');
});

test('fingers that rest are a hold, once, and no tap when they are lifted', () => {
  tap(2, 0, 900);
  jest.advanceTimersByTime(1000);
  expect(found).toEqual(['twoHold']);
});

test('panning, pinching, long touches and palms are none of these', () => {
  meant.delete('twoHold');
  taps.press(finger(1, 0));
  taps.press(finger(2, 10));
  taps.move(finger(2, 40, 260));
  taps.lift(1, 80);
  taps.lift(2, 90);
  tap(2, 1000, 500);
  taps.press(finger(1, 3000, 100, 90));
  taps.press(finger(2, 3010));
  taps.lift(1, 3080);
  taps.lift(2, 3090);
  taps.press(finger(1, 5000));
  taps.press(finger(2, 5010));
  taps.cancel(1);
  taps.lift(2, 5060);
  jest.advanceTimersByTime(1000);
  expect(found).toEqual([]);
});

test('so soon after a pen was near, nothing is a tap', () => {
  penSeen = 1000;
  tap(2, 1500);
  jest.advanceTimersByTime(1000);
  expect(found).toEqual([]);
  tap(2, 3000);
  jest.advanceTimersByTime(1000);
  expect(found).toEqual(['twoTap']);
});

test('what means nothing does nothing', () => {
  meant.clear();
  tap(2, 0);
  tap(1, 1000);
  jest.advanceTimersByTime(1000);
  expect(found).toEqual([]);
});
