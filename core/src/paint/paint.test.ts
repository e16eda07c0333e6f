import { contrast, hexOf, hexOfHsl, hslOf, luminance, paint, rgbOf } from './index';
import fc from 'fast-check';
import { blendOf, newId, stratumOf, type Markup } from '../document/index';

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

// CSS Color 4, 7: the examples of its table of hues, and rebeccapurple (named colours, 6.1).
test.each([
  ['#ff0000', 0, 100, 50],
  ['#00ff00', 120, 100, 50],
  ['#0000ff', 240, 100, 50],
  ['#808080', 0, 0, 50.2],
  ['#663399', 270, 50, 40],
])('%s is %d°, %d %%, %d %%', (color, hue, saturation, lightness) => {
  const hsl = hslOf(color);
  expect(hsl.hue).toBeCloseTo(hue, 1);
  expect(hsl.saturation).toBeCloseTo(saturation, 1);
  expect(hsl.lightness).toBeCloseTo(lightness, 1);
});

test('a colour mixed from its own hue, saturation and lightness is the same', () => {
  const part = fc.nat(255).map((n) => n / 255);
  fc.assert(
    fc.property(part, part, part, (r, g, b) => {
      const color = hexOf(r, g, b);
      expect(hexOfHsl(hslOf(color))).toBe(color);
    }),
  );
});

test('highlighters and washes lie under the words unless they are told otherwise', () => {
  const style = { instrument: 'wash', width: 4, smoothing: 0 } as const;
  expect(blendOf(style)).toBe('multiply');
  expect(blendOf({ ...style, blend: 'normal' })).toBe('normal');
  expect(blendOf({ ...style, instrument: 'nib' })).toBe('normal');
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
  expect(stratumOf(markup('highlight'))).toBe('under');
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
