import { distance, type Point } from '../geometry/index';
import { fitLine, meeting, type Line } from './fit';

/** Points a closed way is looked at by. */
export const AROUND = 72;
/** Points to either side by which a turn is measured. */
const REACH = 4;
/** Least turn at a corner, in radians: a hexagon's corners turn by a third of π. */
const LEAST_TURN = 0.62;
/** Sides whose directions differ by less than this are one. */
const ONE_SIDE = 0.36;

/** Signed difference of two directions, −π to π. */
export const turnBetween = (a: Point, b: Point): number =>
  Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y);

const minus = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });

/**
 * The corners of a closed way given by `AROUND` points at equal distances, as meeting points of
 * the lines that fit its sides; fewer than three when it has no such corners.
 */
export function cornersOf(way: readonly Point[]): Point[] {
  const n = way.length;
  const at = (i: number): Point => way[((i % n) + n) % n];
  const turns = way.map((p, i) =>
    Math.abs(turnBetween(minus(p, at(i - REACH)), minus(at(i + REACH), p))),
  );
  const turnAt = (i: number): number => turns[((i % n) + n) % n];
  const found: number[] = [];
  for (let i = 0; i < n; i++) {
    if (turns[i] < LEAST_TURN) continue;
    let isPeak = true;
    for (let k = 1; k <= REACH && isPeak; k++)
      isPeak = turns[i] > turnAt(i - k) && turns[i] >= turnAt(i + k);
    if (isPeak) found.push(i);
  }
  let places = found;
  for (;;) {
    if (places.length < 3) return [];
    const sides = sidesBetween(way, places);
    const weak = sides.findIndex((side, i) => {
      const before = sides[(i + sides.length - 1) % sides.length];
      return Math.abs(turnBetween(before.u, side.u)) < ONE_SIDE;
    });
    if (weak < 0) return cornersBetween(sides, places.map(at));
    places = places.filter((_, i) => i !== weak);
  }
}

/** The line along each side, which starts at the corner of the same number. */
function sidesBetween(way: readonly Point[], places: readonly number[]): Line[] {
  const n = way.length;
  return places.map((from, i) => {
    const to = places[(i + 1) % places.length] + (i + 1 === places.length ? n : 0);
    // Near corners hands round them off.
    const skip = Math.min(2, Math.floor((to - from) / 4));
    const points: Point[] = [];
    for (let k = from + skip; k <= to - skip; k++) points.push(way[k % n]);
    const line = fitLine(points);
    const ahead = minus(way[to % n], way[from]);
    const isBack = line.u.x * ahead.x + line.u.y * ahead.y < 0;
    return isBack ? { at: line.at, u: { x: -line.u.x, y: -line.u.y } } : line;
  });
}

function cornersBetween(sides: readonly Line[], drawn: readonly Point[]): Point[] {
  return sides.map((side, i) => {
    const before = sides[(i + sides.length - 1) % sides.length];
    const corner = meeting(before, side);
    // Sides at a narrow angle meet far off: there the drawn corner tells more.
    return corner && distance(corner, drawn[i]) < 0.5 * distance(side.at, drawn[i])
      ? corner
      : drawn[i];
  });
}

/** Whether two sides of a polygon that are no neighbours cross. */
export function crossesItself(corners: readonly Point[]): boolean {
  const n = corners.length;
  const side = (p: Point, q: Point, r: Point): number =>
    Math.sign((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x));
  return corners.some((a, i) => {
    const b = corners[(i + 1) % n];
    return corners.some((c, k) => {
      if (k <= i + 1 || (k + 1) % n === i) return false;
      const d = corners[(k + 1) % n];
      return side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b);
    });
  });
}
