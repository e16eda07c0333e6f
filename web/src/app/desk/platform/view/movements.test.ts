import { movementsIn, predictedIn } from './movements';

const event = (timeStamp: number, more: object = {}): PointerEvent =>
  ({ timeStamp, ...more }) as PointerEvent;

test('an event stands for the movements that were put together in it, or for itself', () => {
  const parts = [event(1), event(2)];
  expect(movementsIn(event(2, { getCoalescedEvents: () => parts }))).toBe(parts);
  const alone = event(3, { getCoalescedEvents: () => [] });
  expect(movementsIn(alone)).toEqual([alone]);
});

// Pointer Events 3, 4.1: both methods are exposed in secure contexts alone.
test('over plain HTTP an event is one movement, and nothing is known of what comes', () => {
  const plain = event(4);
  expect(movementsIn(plain)).toEqual([plain]);
  expect(predictedIn(plain, 20)).toEqual([]);
});

test('of what is predicted only what comes soon counts', () => {
  const parts = [event(10), event(24), event(31)];
  expect(predictedIn(event(8, { getPredictedEvents: () => parts }), 20)).toEqual(parts.slice(0, 2));
});
