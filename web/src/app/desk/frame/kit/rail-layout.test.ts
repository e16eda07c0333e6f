import fc from 'fast-check';
import { railLayout, firstOf } from './rail-layout';

const CELL = 46;
const room = (length: number) => ({ length, cell: CELL, divider: 12 });

test('with ten slots everything is one tap away at 1280 × 800 and 820 × 1180', () => {
  const contents = { slots: 11, tools: 11, fixed: 2, hasAway: false };
  // The bars above and below take 44 and 32.
  expect(railLayout(contents, room(800 - 76))).toEqual({
    lanes: 2,
    slots: 11,
    tools: 11,
    hasTray: false,
  });
  expect(railLayout(contents, room(1180 - 76))).toMatchObject({ slots: 11, tools: 11 });
  // Along the top of 1280 there is room for all in one lane.
  expect(railLayout(contents, room(1280))).toMatchObject({ lanes: 1, hasTray: false });
  // On a telephone the rest is in the tray: two taps.
  expect(railLayout(contents, room(400))).toEqual({ lanes: 2, slots: 8, tools: 5, hasTray: true });
});

test('nothing is longer than the rail, and nothing is lost: what does not stand in it is in the tray', () => {
  fc.assert(
    fc.property(
      fc.record({
        slots: fc.integer({ min: 1, max: 60 }),
        tools: fc.integer({ min: 1, max: 40 }),
        fixed: fc.integer({ min: 0, max: 2 }),
        hasAway: fc.boolean(),
      }),
      fc.integer({ min: 200, max: 4000 }),
      (contents, length) => {
        const { lanes, slots, tools, hasTray } = railLayout(contents, room(length));
        const more = contents.fixed + (hasTray ? 1 : 0);
        const longest = lanes === 1 ? slots + tools + more : Math.max(slots, tools + more);
        expect(longest * CELL).toBeLessThanOrEqual(length);
        expect(slots).toBeGreaterThan(0);
        expect(tools).toBeGreaterThan(0);
        const isAll = slots === contents.slots && tools === contents.tools;
        expect(hasTray).toBe(!isAll || contents.hasAway);
      },
    ),
  );
});

test('what is in hand stands in the rail, wherever it is in its order', () => {
  const is = (wanted: string) => (one: string) => one === wanted;
  expect(firstOf(['a', 'b', 'c', 'd'], 2, is('a'))).toEqual(['a', 'b']);
  expect(firstOf(['a', 'b', 'c', 'd'], 2, is('d'))).toEqual(['a', 'd']);
  expect(firstOf(['a', 'b'], 4, is('x'))).toEqual(['a', 'b']);
});
