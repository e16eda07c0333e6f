import { PdfDict, PdfFile, bytesInMemory, bytesOf } from './objects/index';
import { placement } from './annotations/flatten';

const file = new PdfFile(
  bytesInMemory(
    bytesOf(
      '%PDF-1.4\n1 0 obj\n<</Pages 2 0 R>>\nendobj\nxref\n0 2\n0000000000 65535 f\r\n0000000009 00000 n\r\ntrailer\n<</Size 2/Root 1 0 R>>\nstartxref\n41\n%%EOF\n',
    ),
  ),
);
const place = (rect: number[], bbox: number[], matrix?: number[]) =>
  placement(file, PdfDict.of({ Rect: rect }), PdfDict.of({ BBox: bbox, Matrix: matrix }));

// ISO 32000-1, 12.5.5, algorithm 8.1: scale and move the transformed box to fit the rectangle.
test('an appearance is moved and scaled into its rectangle', () => {
  expect(place([100, 200, 120, 240], [0, 0, 10, 10])).toEqual([2, 0, 0, 4, 100, 200]);
  expect(place([10, 20, 30, 40], [10, 20, 30, 40])).toEqual([1, 0, 0, 1, 0, 0]);
});

test('a turned form is measured after its own matrix', () => {
  const turned = place([0, 0, 20, 10], [0, 0, 10, 20], [0, 1, -1, 0, 0, 0]);
  expect(turned).toEqual([1, 0, 0, 1, 20, 0]);
});

test('an appearance without extent is not drawn', () => {
  expect(place([0, 0, 10, 10], [0, 0, 0, 5])).toBeUndefined();
});
