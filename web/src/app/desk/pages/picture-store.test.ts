import { PictureStore } from './picture-store';

const picture = (): HTMLCanvasElement => {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 100;
  return canvas;
};
const BYTES = 100 * 100 * 4;

test('the oldest pictures go first, and give their memory back', () => {
  const store = new PictureStore(2 * BYTES);
  const [a, b, c] = [picture(), picture(), picture()];
  store.put(1, a);
  store.put(2, b);
  store.put(3, c);
  expect(a.width).toBe(0);
  expect(store.take(1)).toBeUndefined();
  expect(store.take(2)).toBe(b);
  expect(store.take(2)).toBeUndefined();
  expect(b.width).toBe(100);
});

test('a newer picture of a page takes the place of the older', () => {
  const store = new PictureStore(2 * BYTES);
  const [old, fresh] = [picture(), picture()];
  store.put(1, old);
  store.put(1, fresh);
  expect(old.width).toBe(0);
  expect(store.take(1)).toBe(fresh);
  store.put(1, fresh);
  store.clear();
  expect(fresh.width).toBe(0);
});
