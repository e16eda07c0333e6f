import { Passing } from './passing';

const VIEW = 700;
const drawing = { pause: jest.fn(), resume: jest.fn() };

beforeEach(() => jest.useFakeTimers());
afterEach(() => {
  jest.useRealTimers();
  jest.clearAllMocks();
});

/** Whether pages pass after each of some steps of so many pixels, each so many ms after the one before. */
function steps(passing: Passing, lengths: readonly number[], every = 16, from = 0): boolean[] {
  let at = from;
  return lengths.map((length) => {
    jest.advanceTimersByTime(every);
    passing.step((at += length), VIEW, performance.now());
    return passing.isOn();
  });
}

test('pages pass once two steps in a row go eight views a second, and no longer than that', () => {
  // 8 views of 700 px a second are 89.6 px in 16 ms.
  const passes = steps(new Passing(drawing, 8), [0, 90, 90, 90, 89, 90, 90]);
  expect(passes).toEqual([false, false, true, true, false, false, true]);
  expect(drawing.pause).toHaveBeenCalledTimes(2);
  expect(drawing.resume).toHaveBeenCalledTimes(1);
});

test('upwards is no slower than downwards', () => {
  expect(steps(new Passing(drawing, 8), [0, -120, -120], 16, 90_000).at(-1)).toBe(true);
});

test('a jump is no passing, nor is one after another when a key is held', () => {
  expect(steps(new Passing(drawing, 8), [0, 50_000])).toEqual([false, false]);
  expect(steps(new Passing(drawing, 8), [0, VIEW, VIEW, VIEW], 130).some(Boolean)).toBe(false);
  expect(drawing.pause).not.toHaveBeenCalled();
});

test('when scrolling stops, the pages stand, and drawing goes on', () => {
  const passing = new Passing(drawing, 8);
  expect(steps(passing, [0, 500, 500]).at(-1)).toBe(true);
  jest.advanceTimersByTime(100);
  expect(passing.isOn()).toBe(false);
  expect(drawing.resume).toHaveBeenCalledTimes(1);
  // What comes after a rest begins anew.
  expect(steps(passing, [500, 500, 500], 16, 1000)).toEqual([false, false, true]);
});

test('pages that are taken away leave drawing as it was', () => {
  const passing = new Passing(drawing, 8);
  steps(passing, [0, 500, 500]);
  passing.stand();
  expect(drawing.resume).toHaveBeenCalledTimes(1);
  passing.stand();
  expect(drawing.resume).toHaveBeenCalledTimes(1);
});
