import { tabStopsIn, textOfTabStops } from './tab-stops';

test('tab stops are written in mm, with points or commas, in any order, and read back as they stand', () => {
  // An inch is 25.4 mm and 72 points (ISO 32000-2, 8.3.2.3).
  expect(tabStopsIn('25.4, 50,8')).toEqual([expect.closeTo(72), expect.closeTo(144)]);
  expect(tabStopsIn('50.8; 25,4 25.4')).toEqual([expect.closeTo(72), expect.closeTo(144)]);
  expect(textOfTabStops(tabStopsIn('20, 45.5'))).toBe('20, 45.5');
  expect(tabStopsIn(' ')).toEqual([]);
  expect(textOfTabStops()).toBe('');
});

test('what is no length, or too far, or too many, is none of it', () => {
  for (const text of ['wide', '20, x', '-3', '0', '2000', '1 '.repeat(2) + 'NaN'])
    expect(tabStopsIn(text)).toBeUndefined();
  const many = Array.from({ length: 41 }, (_, i) => i + 1);
  expect(tabStopsIn(many.join(' '))).toBeUndefined();
  expect(tabStopsIn(many.slice(1).join(' '))).toHaveLength(40);
});
