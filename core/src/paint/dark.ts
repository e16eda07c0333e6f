import { hexOf, rgbOf } from './color';

/** How dark pages are shown, as a CSS filter: light for dark and back, each colour in its own hue. */
export const DARK_FILTER = 'invert(0.9) hue-rotate(180deg)';
const AMOUNT = 0.9;

/** A colour as dark pages show it. */
export function darkened(color: string): string {
  return hexOf(...opposite(rgbOf(color).map((c) => AMOUNT + c * (1 - 2 * AMOUNT))));
}

/** What is seen where a highlight lies on something, both as dark pages show them. */
export function screened(highlight: string, on: string): string {
  const [a, b] = [rgbOf(highlight), rgbOf(on)];
  // What multiplies on light paper screens on dark (ISO 32000-1, table 136: the one is the other of complements).
  const [red, green, blue] = a.map((c, i) => 1 - (1 - c) * (1 - b[i]));
  return hexOf(red, green, blue);
}

/** The hue turned by 180° (Filter Effects 1, 10.5: the matrix of hueRotate at that angle). */
function opposite([r, g, b]: readonly number[]): [number, number, number] {
  const grey = 2 * (0.213 * r + 0.715 * g + 0.072 * b);
  return [grey - r, grey - g, grey - b];
}
