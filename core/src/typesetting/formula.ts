import { transform, type Box, type Matrix } from '../geometry/index';

/** A formula as outlines; lengths are shares of the size of the letters around it. */
export interface Formula {
  readonly width: number;
  /** How far it reaches above and below the line; both positive. */
  readonly ascent: number;
  readonly descent: number;
  readonly outlines: readonly FormulaOutline[];
}

export interface FormulaOutline {
  /** An SVG path (SVG 2, 9.3) of the absolute commands M, L, C and Z, to be filled; from the formula's left on the line, y down. */
  readonly path: string;
  /** What of it is seen, where that is not all. */
  readonly within?: Box;
}

/** A command of a path, with its points. */
export interface PathCommand {
  readonly letter: 'M' | 'L' | 'C' | 'Z';
  readonly points: readonly number[];
}

const POINTS = { M: 2, L: 2, C: 6, Z: 0 } as const;

/** The commands of an SVG path; throws where it has others than M, L, C and Z. */
export function pathCommands(path: string): PathCommand[] {
  const found: PathCommand[] = [];
  for (const [, letter, rest] of path.matchAll(/([A-Za-z])([^A-Za-z]*)/g)) {
    if (!(letter in POINTS)) throw new Error(`a path has the command ${letter}`);
    const points = (rest.match(/-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g) ?? []).map(Number);
    const count = POINTS[letter as PathCommand['letter']];
    if (count === 0) found.push({ letter: 'Z', points: [] });
    // What is left out is the command before (9.3.1), after M it is L.
    for (let i = 0; count > 0 && i < points.length; i += count)
      found.push({
        letter: letter === 'M' && i > 0 ? 'L' : (letter as PathCommand['letter']),
        points: points.slice(i, i + count),
      });
  }
  return found;
}

/** Commands with their points mapped by a matrix. */
export const mappedCommands = (commands: readonly PathCommand[], map: Matrix): PathCommand[] =>
  commands.map(({ letter, points }) => {
    const mapped: number[] = [];
    for (let i = 0; i < points.length; i += 2) {
      const { x, y } = transform(map, { x: points[i], y: points[i + 1] });
      mapped.push(x, y);
    }
    return { letter, points: mapped };
  });
