import { hslOf } from '@stylet/core/paint';

/** Ink colours by name. */
export const inkColors = [
  { name: 'iron gall', color: '#22304a' },
  { name: 'verdigris', color: '#1f6f66' },
  { name: 'madder', color: '#b3324b' },
  { name: 'ochre', color: '#b77412' },
  { name: 'ultramarine', color: '#2f4fb5' },
  { name: 'graphite', color: '#4b4f58' },
] as const;

/** Highlighter colours by name; black text on each keeps a contrast of 7:1. */
export const highlighterColors = [
  { name: 'saffron', color: '#ffe27a' },
  { name: 'celadon', color: '#bde8b2' },
  { name: 'rose', color: '#f9c0cb' },
  { name: 'sky', color: '#b9ddf7' },
  { name: 'lilac', color: '#d9c8f5' },
] as const;

/** What a colour is called: as in the palettes, or by its hue and how dark and strong it is. */
export function nameOfColor(color: string): string {
  const known = [...inkColors, ...highlighterColors].find((one) => one.color === color);
  if (known) return known.name;
  const { hue, saturation, lightness } = hslOf(color);
  if (lightness < 12) return 'black';
  if (lightness > 94) return 'white';
  const shade = lightness < 35 ? 'dark ' : lightness > 72 ? 'light ' : '';
  if (saturation < 12) return `${shade}grey`;
  return shade + hues.find(({ to }) => hue < to)!.name;
}

/** Names of hues, and the degree (HSL) up to which they hold; common practice, no source. */
const hues = [
  { to: 15, name: 'red' },
  { to: 40, name: 'orange' },
  { to: 68, name: 'yellow' },
  { to: 160, name: 'green' },
  { to: 195, name: 'turquoise' },
  { to: 255, name: 'blue' },
  { to: 290, name: 'violet' },
  { to: 345, name: 'pink' },
  { to: Infinity, name: 'red' },
] as const;

const named: ReadonlySet<string> = new Set(
  [...inkColors, ...highlighterColors].map(({ color }) => color),
);

/** Whether a colour is none of the palettes'. */
export const isOwnColor = (color: string): boolean => !named.has(color);
