import { contrast, hexOf, luminance, paint, rgbOf, liesUnder } from './index';
import { newId, type Markup } from '../document/index';

// WCAG 2.2, definitions of relative luminance and contrast ratio: black and white are 21:1 apart.
test('contrast as WCAG defines it', () => {
  expect(luminance('#ffffff')).toBeCloseTo(1);
  expect(luminance('#000000')).toBe(0);
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
  // #767676 is the lightest grey with 4.5:1 on white (common practice, no source).
  expect(contrast('#767676', '#ffffff')).toBeGreaterThanOrEqual(4.5);
  expect(contrast('#777777', '#ffffff')).toBeLessThan(4.5);
});

test('colours go to components and back', () => {
  for (const color of ['#22304a', '#ffe27a', '#000000', '#ffffff'])
    expect(hexOf(...rgbOf(color))).toBe(color);
});

const markup = (kind: Markup['kind']): Markup => ({
  kind,
  id: newId(),
  pageId: newId(),
  order: 'a0',
  color: '#ffe27a',
  opacity: 1,
  author: '',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  quads: [[0, 0, 100, 0, 0, 10, 100, 10]],
  contents: '',
});

test('a highlight fills its quads and lies under the words', () => {
  const [command] = paint(markup('highlight'));
  expect([...command.pieces[0].polygon]).toEqual([0, 0, 100, 0, 100, 10, 0, 10]);
  expect(command.blend).toBe('multiply');
  expect(liesUnder(markup('highlight'))).toBe(true);
});

test('an underline lies low, a strikeout in the middle of the line, both over the words', () => {
  const middle = (kind: 'underline' | 'strikeout'): number => {
    const [{ pieces, blend }] = paint(markup(kind));
    const [{ polygon }] = pieces;
    expect(blend).toBe('normal');
    return (polygon[1] + polygon[5]) / 2;
  };
  expect(middle('underline')).toBeGreaterThan(8.5);
  expect(middle('strikeout')).toBeGreaterThan(4);
  expect(middle('strikeout')).toBeLessThan(7);
});
