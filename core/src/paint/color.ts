/** `#RRGGBB` as three components of 0–1. */
export function rgbOf(color: string): [number, number, number] {
  const value = parseInt(color.slice(1), 16);
  return [(value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255];
}

/** Components of 0–1 as `#rrggbb`. */
export function hexOf(r: number, g: number, b: number): string {
  const byte = (c: number): string =>
    Math.round(Math.min(1, Math.max(0, c)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${byte(r)}${byte(g)}${byte(b)}`;
}

/** Hue in degrees, saturation and lightness in percent (CSS Color 4, 7). */
export interface Hsl {
  readonly hue: number;
  readonly saturation: number;
  readonly lightness: number;
}

/** A colour as hue, saturation and lightness (CSS Color 4, 7.2); greys have hue 0. */
export function hslOf(color: string): Hsl {
  const [r, g, b] = rgbOf(color);
  const max = Math.max(r, g, b);
  const min = Math.min(r, g, b);
  const range = max - min;
  const lightness = (max + min) / 2;
  if (range === 0) return { hue: 0, saturation: 0, lightness: lightness * 100 };
  const sixth =
    max === r
      ? (g - b) / range + (g < b ? 6 : 0)
      : max === g
        ? (b - r) / range + 2
        : (r - g) / range + 4;
  const saturation = (max - lightness) / Math.min(lightness, 1 - lightness);
  return { hue: sixth * 60, saturation: saturation * 100, lightness: lightness * 100 };
}

/** The inverse of `hslOf`, to the nearest colour of 8 bits (CSS Color 4, 7.1). */
export function hexOfHsl({ hue, saturation, lightness }: Hsl): string {
  const [s, l] = [saturation / 100, lightness / 100];
  const part = (n: number): number => {
    const k = (n + hue / 30) % 12;
    return l - s * Math.min(l, 1 - l) * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return hexOf(part(0), part(8), part(4));
}

/** Relative luminance of a colour (WCAG 2.2, “relative luminance”). */
export function luminance(color: string): number {
  const [r, g, b] = rgbOf(color).map((c) =>
    c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4,
  );
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio of two colours, 1 to 21 (WCAG 2.2, “contrast ratio”). */
export function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}
