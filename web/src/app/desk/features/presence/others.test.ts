import type { Presence } from '@stylet/core/api';
import { PRESENCE_LASTS } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import fc from 'fast-check';
import { FADES, heardOf, later, type Others } from './others';

const pageId = newId();
const nobody: Others = new Map();
const says = (pen: Partial<NonNullable<Presence['pen']>> | null): Presence => ({
  name: 'Ada',
  hue: 1,
  place: null,
  pen: pen && { pageId, stroke: 1, from: 0, points: [0, 0], fades: false, ...pen },
});

test('a stroke that comes in parts is whole, however it is parted', () => {
  const point = fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 500 }));
  const parts = fc.array(fc.array(point, { minLength: 1, maxLength: 20 }), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(parts, (all) => {
      let others = nobody;
      let from = 0;
      for (const part of all) {
        others = heardOf(others, 'w', says({ from, points: part.flat() }), 1);
        from += part.length;
      }
      const shown = others.get('w')!.pen!.points.map(({ x, y }) => [x, y]);
      expect(shown).toEqual(all.flat());
    }),
  );
});

test('after a part that was lost, or on another page, it begins anew', () => {
  let others = heardOf(nobody, 'w', says({ points: [1, 1, 2, 2] }), 1);
  others = heardOf(others, 'w', says({ from: 5, points: [9, 9] }), 2);
  expect(others.get('w')!.pen!.points).toEqual([{ x: 9, y: 9 }]);
  others = heardOf(others, 'w', says({ pageId: newId(), from: 6, points: [3, 3] }), 3);
  expect(others.get('w')!.pen!.points).toEqual([{ x: 3, y: 3 }]);
});

test('a pen that rests on the page is seen; one that was lifted until its ink has come; what fades goes sooner', () => {
  const others = heardOf(nobody, 'w', says({}), 0);
  expect(later(others, 5000)).toBe(others);
  const lifted = heardOf(others, 'w', says(null), 100);
  expect(lifted.get('w')!.pen).toBeDefined();
  expect(later(lifted, 1000)).toBe(lifted);
  expect(later(lifted, 2000).get('w')!.pen).toBeUndefined();
  const pointing = heardOf(nobody, 'w', says({ fades: true }), 0);
  expect(later(pointing, FADES + 1).get('w')!.pen).toBeUndefined();
});

test('who goes is gone, and so is who is not heard of any more', () => {
  const others = heardOf(heardOf(nobody, 'a', says(null), 0), 'b', says(null), 20_000);
  expect([...heardOf(others, 'a', null, 1).keys()]).toEqual(['b']);
  expect([...later(others, PRESENCE_LASTS + 1).keys()]).toEqual(['b']);
});

test('of a very long stroke, and of a trail, no more is shown than need be', () => {
  const long = (fades: boolean): number => {
    let others = nobody;
    for (let i = 0; i < 200; i++)
      others = heardOf(others, 'w', says({ from: i * 50, points: Array(100).fill(i), fades }), i);
    return others.get('w')!.pen!.points.length;
  };
  expect([long(false), long(true)]).toEqual([4000, 60]);
});
