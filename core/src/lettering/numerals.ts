import type { Point } from '../geometry/index';

/**
 * Numerals and what stands between them, as a pen draws them: strokes of points that a spline goes through (“x,y x,y”), on a grid of
 * 8 units from the line up to the top; y upwards. The first number is how far the next one begins to the right.
 */
const glyphs: Readonly<Record<string, readonly [advance: number, ...strokes: string[]]>> = {
  ' ': [3.6],
  '-': [4.4, '0.6,3.6 1.8,3.6 3.4,3.6'],
  '.': [2.4, '0.9,0 1,0.1'],
  '0': [6, '2.5,8 0.8,6.8 0.4,4 0.8,1.2 2.5,0 4.2,1.2 4.6,4 4.2,6.8 2.5,8'],
  '1': [4.4, '0.8,6.2 1.8,7.1 2.6,8 2.6,5 2.6,2 2.6,0'],
  '2': [6, '0.6,6.4 1.1,7.6 2.5,8 4,7.5 4.4,6 3.6,4.2 2,2 0.5,0.1 2,0 4.7,0'],
  '3': [
    6,
    '0.6,7 1.6,7.9 3,7.9 4.1,7 4,5.4 2.9,4.5 1.9,4.3 3.3,4.1 4.5,3 4.4,1.2 3.2,0.1 1.6,0 0.3,0.9',
  ],
  '4': [6, '3.2,8 1.8,5.2 0.3,2.4 2.4,2.4 4.9,2.4', '3.7,4.6 3.7,2.4 3.7,0'],
  '5': [6, '4.4,8 2.6,8 1,8 0.8,6.2 0.7,4.6 2,5 3.6,4.7 4.6,3.2 4.4,1.4 3.2,0.2 1.6,0 0.3,0.8'],
  '6': [6, '4,7.9 2.3,7 1,5 0.5,2.8 0.9,0.9 2.4,0 4,0.5 4.6,2.2 4,3.9 2.5,4.5 1.1,3.6 0.5,2.6'],
  '7': [5.8, '0.4,8 2.4,8 4.6,8 3.6,5.6 2.4,2.8 1.5,0'],
  '8': [
    6,
    '4.2,6.9 3.4,7.9 1.8,7.9 0.9,6.7 1.2,5.3 2.6,4.3 4.2,3.1 4.5,1.5 3.5,0.2 1.8,0 0.6,1 0.7,2.7 2.2,4 3.7,5.2 4.2,6.9',
  ],
  '9': [
    6,
    '4.5,5.6 3.6,4.2 2.2,3.7 0.9,4.5 0.5,6.2 1.2,7.6 2.7,8 4.1,7.2 4.6,5.4 4.3,2.8 3.3,0.8 1.6,0',
  ],
  ':': [2.8, '1,1.4 1.1,1.5', '1,4.8 1.1,4.9'],
  p: [
    5.6,
    '0.8,5.2 0.8,1.6 0.8,-2.4',
    '0.8,4.2 1.9,5.3 3.4,5.1 4.2,3.6 4,1.5 2.9,0.1 1.6,0.2 0.8,1.2',
  ],
};

/** Height of a numeral on the grid. */
const GRID = 8;

/**
 * A text of numerals, “-”, “.”, “:”, “p” and spaces as strokes of points: `height` points high, standing on y 0 and
 * beginning at x 0, y downwards. Other characters leave a space.
 */
export function numerals(text: string, height: number): Point[][] {
  const scale = height / GRID;
  let x = 0;
  return [...text].flatMap((character) => {
    const [advance, ...strokes] = glyphs[character] ?? glyphs[' '];
    const from = x;
    x += advance;
    return strokes.map((stroke) =>
      stroke.split(' ').map((point) => {
        const [right, up] = point.split(',').map(Number);
        return { x: (from + right) * scale, y: -up * scale };
      }),
    );
  });
}
