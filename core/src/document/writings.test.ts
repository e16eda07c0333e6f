import fc from 'fast-check';
import type { Box } from '../geometry/index';
import type { Annotation } from './annotation';
import { writingsAmong } from './writings';

/** Writings among boxes; an annotation is no more here than its place in the list. */
const among = (boxes: readonly (Box | undefined)[]): number[][] => {
  const all = boxes.map((_, i) => ({ id: String(i) }) as Annotation);
  const boxOf = ({ id }: Annotation): Box | undefined => boxes[Number(id)];
  return writingsAmong(all, boxOf).map(({ annotations }) =>
    annotations.map(({ id }) => Number(id)),
  );
};
const stroke = (x0: number, y0: number, height: number, width = 4): Box => ({
  x0,
  y0,
  x1: x0 + width,
  y1: y0 + height,
});

test('where nothing has a box there is no writing', () => {
  expect(among([])).toEqual([]);
  expect(among([undefined, undefined])).toEqual([]);
});

// The measures are the project's own: 2.2 of the height of a page's strokes along a line, within 8 and 36 points.
test.each([
  ['strokes 10 high', 10, 22],
  ['the smallest', 1, 8],
  ['the largest', 100, 36],
])('%s belong together as far apart as their height allows', (_, height, reach) => {
  const beside = (gap: number) => among([stroke(50, 300, height), stroke(54 + gap, 300, height)]);
  expect(beside(reach - 0.5)).toEqual([[0, 1]]);
  expect(beside(reach + 0.5)).toEqual([[0], [1]]);
});

test('it is the middle height that counts: one large stroke among small ones changes nothing', () => {
  const at = (gap: number) =>
    among([
      stroke(400, 500, 90),
      stroke(50, 300, 10),
      stroke(54 + gap, 300, 10),
      stroke(400, 20, 2),
    ]);
  expect(at(21.5)).toEqual([[3], [1, 2], [0]]);
  expect(at(22.5)).toEqual([[3], [1], [2], [0]]);
});

test('lines of writing stay apart, and every stroke is in one piece', () => {
  expect(among([stroke(50, 300, 10), stroke(50, 313.5, 10)])).toEqual([[0, 1]]);
  expect(among([stroke(50, 300, 10), stroke(50, 314.5, 10)])).toEqual([[0], [1]]);
  const box = fc
    .tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), fc.nat(30))
    .map(([x, y, height]) => stroke(x, y, height));
  fc.assert(
    fc.property(fc.array(box), (boxes) => {
      const found = among(boxes);
      expect(found.flat().sort((a, b) => a - b)).toEqual(boxes.map((_, i) => i));
    }),
  );
});
