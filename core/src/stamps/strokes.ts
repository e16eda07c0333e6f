import type { Point } from '../geometry/index';

/** Points to a straight side: enough that a spline through them stays on it. */
const SIDE = 5;
const round = (value: number): number => Math.round(value * 100) / 100;

/**
 * A stroke in few words, on a grid of 100 by 100 units, y down: `x,y x,y …` is what a spline goes through, `L` before it goes
 * from point to point by straight lines, `O x,y rx,ry` is an ellipse, and `A x,y rx,ry from,to` a part of one (degrees, clockwise
 * from the right). Throws RangeError for anything else.
 */
export function strokeIn(words: string): Point[] {
  const [first, ...rest] = words.trim().split(/\s+/);
  if (first === 'L') return straight(rest.map(pointIn));
  if (first === 'O') return arc(pointIn(rest[0]), pointIn(rest[1]), 0, 360);
  if (first === 'A') {
    const range = pointIn(rest[2]);
    return arc(pointIn(rest[0]), pointIn(rest[1]), range.x, range.y);
  }
  return [first, ...rest].map(pointIn);
}

function pointIn(words: string): Point {
  const [x, y] = words.split(',').map(Number);
  if (!Number.isFinite(x) || !Number.isFinite(y)) throw new RangeError(`no point: ${words}`);
  return { x, y };
}

/** Corners come twice: a spline turns there. */
const straight = (corners: readonly Point[]): Point[] =>
  corners.flatMap((to, i) => {
    const from = corners[i - 1];
    if (!from) return [to];
    return Array.from({ length: SIDE }, (_, k) => {
      const share = [0.01, 0.33, 0.66, 0.99, 1][k];
      return {
        x: round(from.x + (to.x - from.x) * share),
        y: round(from.y + (to.y - from.y) * share),
      };
    });
  });

function arc(middle: Point, radius: Point, from: number, to: number): Point[] {
  const steps = Math.max(4, Math.ceil(Math.abs(to - from) / 20));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    return {
      x: round(middle.x + radius.x * Math.cos(angle)),
      y: round(middle.y + radius.y * Math.sin(angle)),
    };
  });
}
