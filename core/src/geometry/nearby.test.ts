import fc from 'fast-check';
import { boxOf, touches } from './box';
import { Nearby } from './nearby';

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const box = fc
  .tuple(coordinate, coordinate, coordinate, coordinate)
  .map(([ax, ay, bx, by]) => boxOf({ x: ax, y: ay }, { x: bx, y: by }));

test('what a linear scan finds is found, and nothing else', () => {
  fc.assert(
    fc.property(fc.array(fc.option(box, { nil: undefined })), box, (boxes, wanted) => {
      const found = new Nearby(boxes).find(wanted).sort((a, b) => a - b);
      expect(found).toEqual(boxes.flatMap((b, i) => (b && touches(b, wanted) ? [i] : [])));
    }),
  );
});
