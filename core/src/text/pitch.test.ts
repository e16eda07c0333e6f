import { linePitch, type Line } from './index';

const line = (x0: number, y1: number, angle: Line['angle'] = 0): Line => {
  const box = { x0, y0: y1 - 10, x1: x0 + 200, y1 };
  return { words: [], box, frame: box, angle };
};

test('the pitch is what most lines that stand one below the other have', () => {
  const left = [100, 114, 128, 142, 170, 184].map((y) => line(50, y));
  const right = [100, 114, 128].map((y) => line(300, y));
  expect(linePitch([...left, ...right])).toBe(14);
});

test('headings far off, lines beside each other and upright text tell nothing', () => {
  expect(linePitch([])).toBeUndefined();
  expect(linePitch([line(50, 100)])).toBeUndefined();
  expect(linePitch([line(50, 100), line(50, 190)])).toBeUndefined();
  expect(linePitch([line(50, 100), line(300, 114)])).toBeUndefined();
  expect(linePitch([line(50, 100, 90), line(50, 114, 90)])).toBeUndefined();
});
