import { TestBed } from '@angular/core/testing';
import { PenRest } from './pen-rest';

let rest: PenRest;
beforeEach(() => {
  jest.useFakeTimers();
  rest = TestBed.inject(PenRest);
});
afterEach(() => jest.useRealTimers());

const pen = (type: string): boolean =>
  window.dispatchEvent(Object.assign(new Event(type), { pointerId: 7 }));

/** Ms until the pen is said to rest. */
async function told(): Promise<() => number | undefined> {
  const from = performance.now();
  let after: number | undefined;
  void rest.comes().then(() => (after = performance.now() - from));
  await jest.advanceTimersByTimeAsync(0);
  return () => after;
}

test('where nobody writes nothing waits', async () => {
  expect((await told())()).toBe(0);
});

test('it waits for the end of a word, not of each stroke', async () => {
  pen('pointerdown');
  const after = await told();
  await jest.advanceTimersByTimeAsync(300);
  pen('pointerup');
  await jest.advanceTimersByTimeAsync(150);
  pen('pointerdown');
  await jest.advanceTimersByTimeAsync(200);
  pen('pointerup');
  expect(after()).toBeUndefined();
  await jest.advanceTimersByTimeAsync(500);
  expect(after()).toBeGreaterThanOrEqual(650 + 250);
  expect(after()).toBeLessThan(650 + 2 * 250 + 10);
});

test('a pen that never rests holds nothing up for longer than two seconds', async () => {
  pen('pointerdown');
  const after = await told();
  await jest.advanceTimersByTimeAsync(5000);
  expect(after()).toBe(2000);
});
