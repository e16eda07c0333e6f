import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Point } from '@stylet/core/geometry';

/** Single-stroke typefaces that the package `hersheytext` ships. */
export const typefaces = ['EMSFelix', 'EMSAllure', 'HersheyScript1', 'HersheySans1'] as const;
export type Typeface = (typeof typefaces)[number];

interface Letter {
  readonly advance: number;
  /** Pen paths in units of the em, y upwards. */
  readonly paths: readonly (readonly Point[])[];
}

const loaded = new Map<Typeface, Map<string, Letter>>();

function lettersOf(typeface: Typeface): Map<string, Letter> {
  let letters = loaded.get(typeface);
  if (!letters) {
    const path = createRequire(import.meta.url).resolve(`hersheytext/svg_fonts/${typeface}.svg`);
    letters = parseFont(readFileSync(path, 'utf8'));
    loaded.set(typeface, letters);
  }
  return letters;
}

/** Reads an SVG font whose glyphs are made of straight pieces. */
export function parseFont(svg: string): Map<string, Letter> {
  const em = Number(/units-per-em="([\d.]+)"/.exec(svg)?.[1] ?? 1000);
  const letters = new Map<string, Letter>();
  for (const [, attributes] of svg.matchAll(/<glyph\s([^>]*?)\/?>/g)) {
    const get = (name: string): string | undefined =>
      new RegExp(`(?:^|\\s)${name}="([^"]*)"`).exec(attributes)?.[1];
    const character = decode(get('unicode') ?? '');
    if (character === '') continue;
    letters.set(character, {
      advance: Number(get('horiz-adv-x') ?? em / 3) / em,
      paths: parsePath(get('d') ?? '', em),
    });
  }
  return letters;
}

function parsePath(d: string, em: number): Point[][] {
  const paths: Point[][] = [];
  for (const [, command, numbers] of d.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const n = (numbers.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number);
    if (command === 'M') paths.push([]);
    const path = paths.at(-1);
    if (!path) continue;
    if (command === 'Z' && path.length > 0) path.push(path[0]);
    // Of a curve only the end is taken: the few there are span a fraction of a letter.
    for (let i = command === 'C' ? 4 : 0; i + 1 < n.length; i += command === 'C' ? 6 : 2)
      path.push({ x: n[i] / em, y: n[i + 1] / em });
  }
  return paths.filter((path) => path.length > 1);
}

function decode(text: string): string {
  const named: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
  return text.replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (_, hex, dec, name: string) => {
    if (hex) return String.fromCodePoint(parseInt(hex as string, 16));
    return dec ? String.fromCodePoint(Number(dec)) : (named[name] ?? '');
  });
}

/**
 * The pen paths of a line of writing, in points: baseline from (x, y) to the right, letters of
 * `size` points to the em, y downwards. Characters the typeface lacks leave a space.
 */
export function pathsOfText(
  text: string,
  { x, y, size, typeface }: { x: number; y: number; size: number; typeface: Typeface },
): Point[][] {
  const letters = lettersOf(typeface);
  const paths: Point[][] = [];
  let at = x;
  for (const character of text) {
    const letter = letters.get(character);
    for (const path of letter?.paths ?? [])
      paths.push(path.map((p) => ({ x: at + p.x * size, y: y - p.y * size })));
    at += (letter?.advance ?? 0.3) * size;
  }
  return paths;
}

/** How wide a line of writing is, in points. */
export function widthOfText(text: string, size: number, typeface: Typeface): number {
  const letters = lettersOf(typeface);
  return [...text].reduce((sum, c) => sum + (letters.get(c)?.advance ?? 0.3) * size, 0);
}
