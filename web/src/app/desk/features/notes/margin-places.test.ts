import fc from 'fast-check';
import { placesInMargin, type InMargin } from './margin-places';

const GAP = 8;
const items: fc.Arbitrary<InMargin[]> = fc
  .array(
    fc.record({
      wanted: fc.integer({ min: 0, max: 900 }),
      height: fc.integer({ min: 20, max: 200 }),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map((list) => list.map((item, i) => ({ ...item, key: String(i) })));

test('nothing stands over anything, and all stand in the order of their places', () => {
  fc.assert(
    fc.property(items, fc.nat(11), (list, first) => {
      const places = placesInMargin(list, GAP, String(first));
      const placed = list
        .map((item) => ({ ...item, top: places.get(item.key)! }))
        .sort((a, b) => a.top - b.top);
      placed.forEach((item, i) => {
        expect(item.top).toBeGreaterThanOrEqual(0);
        const next = placed[i + 1];
        if (!next) return;
        expect(next.top).toBeGreaterThanOrEqual(item.top + item.height + GAP);
        expect(next.wanted).toBeGreaterThanOrEqual(item.wanted);
      });
    }),
  );
});

test('what there is room for stands beside its place; the one that is worked on does before others', () => {
  const list = [
    { key: 'a', wanted: 200, height: 50 },
    { key: 'b', wanted: 220, height: 50 },
    { key: 'c', wanted: 500, height: 50 },
  ];
  expect([...placesInMargin(list, GAP)]).toEqual([
    ['a', 200],
    ['b', 258],
    ['c', 500],
  ]);
  expect([...placesInMargin(list, GAP, 'b')]).toEqual([
    ['a', 162],
    ['b', 220],
    ['c', 500],
  ]);
  // Where there is none above it, it makes way: nothing is out of reach.
  const high = [
    { key: 'a', wanted: 0, height: 60 },
    { key: 'b', wanted: 10, height: 60 },
  ];
  expect([...placesInMargin(high, GAP, 'b')]).toEqual([
    ['a', 0],
    ['b', 68],
  ]);
});
