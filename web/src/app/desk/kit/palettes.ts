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

const named: ReadonlySet<string> = new Set(
  [...inkColors, ...highlighterColors].map(({ color }) => color),
);

/** Whether a colour is none of the palettes'. */
export const isOwnColor = (color: string): boolean => !named.has(color);
