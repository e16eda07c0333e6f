import { isoA, paperName, toMillimetres, toPoints } from './sizes';

// ISO 216:2007, table 1: the A series in mm.
const published: [number, number, number][] = [
  [0, 841, 1189],
  [1, 594, 841],
  [2, 420, 594],
  [3, 297, 420],
  [4, 210, 297],
  [5, 148, 210],
  [6, 105, 148],
  [7, 74, 105],
  [8, 52, 74],
  [9, 37, 52],
  [10, 26, 37],
];

test.each(published)('A%i is %i × %i mm', (n, width, height) => {
  expect(isoA(n)).toEqual({ width, height });
  expect(paperName(toPoints(height), toPoints(width))).toBe(`A${n}`);
});

test('a point is 1/72 inch, an inch 25.4 mm', () => {
  expect(toPoints(25.4)).toBeCloseTo(72);
  expect(toMillimetres(72)).toBeCloseTo(25.4);
});

test('other sheets have no A name, and there is no A11', () => {
  expect(paperName(612, 792)).toBeUndefined();
  expect(() => isoA(11)).toThrow(RangeError);
});
