import { NOTE_MARK, type Note } from '../document/index';
import type { FillCommand } from './fill-command';

/** Of the rim and the lines on a note's mark. */
const INK = '#22304a';
const HALF = NOTE_MARK / 2;
const RIM = 1.1;
/** Lines of writing: from the left to the right, from the top to the bottom; in points from the middle. */
const LINES = [
  [-3.6, -2.2, 3.6, -1.1],
  [-3.6, 0.9, 1.4, 2],
] as const;

/** The mark of a note on its page: a lozenge with lines of writing on it. */
export function paintNoteMark({ at: { x, y }, color, opacity }: Note): FillCommand[] {
  const fill = (tone: string, outlines: readonly (readonly number[])[]): FillCommand => ({
    pieces: outlines.map((outline) => ({
      polygon: Float64Array.from(outline, (value, i) => value + (i % 2 === 0 ? x : y)),
      grain: 0,
    })),
    color: tone,
    opacity,
    blend: 'normal',
  });
  const inner = HALF - RIM;
  const [outside, inside] = [lozenge(HALF), lozenge(inner)];
  const rim = outside.map((from, i) => {
    const next = (i + 1) % outside.length;
    return [from, outside[next], inside[next], inside[i]].flat();
  });
  const lines = LINES.map(([x0, y0, x1, y1]) => [x0, y0, x1, y0, x1, y1, x0, y1]);
  return [fill(color, [inside.flat()]), fill(INK, [...rim, ...lines])];
}

const lozenge = (half: number): (readonly [number, number])[] => [
  [0, -half],
  [half, 0],
  [0, half],
  [-half, 0],
];
