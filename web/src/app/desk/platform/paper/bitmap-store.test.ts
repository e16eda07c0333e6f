import { BitmapStore, type KeptBitmap } from './bitmap-store';

const bitmap = (): KeptBitmap => {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 100;
  return { canvas, request: '' };
};
const BYTES = 100 * 100 * 4;

test('the oldest bitmaps go first, and give their memory back', () => {
  const store = new BitmapStore(2 * BYTES);
  const [a, b, c] = [bitmap(), bitmap(), bitmap()];
  store.put('1', a);
  store.put('2', b);
  store.put('3', c);
  expect(a.canvas.width).toBe(0);
  expect(store.take('1')).toBeUndefined();
  expect(store.take('2')).toBe(b);
  expect(store.take('2')).toBeUndefined();
  expect(b.canvas.width).toBe(100);
});

test('a newer bitmap of a page takes the place of the older', () => {
  const store = new BitmapStore(2 * BYTES);
  const [old, fresh] = [bitmap(), bitmap()];
  store.put('1', old);
  store.put('1', fresh);
  expect(old.canvas.width).toBe(0);
  expect(store.take('1')).toBe(fresh);
  store.put('1', fresh);
  store.clear();
  expect(fresh.canvas.width).toBe(0);
});
