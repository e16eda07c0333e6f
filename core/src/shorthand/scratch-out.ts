import { distance, type Point } from '../geometry/index';

/** Passes there have to be, and how long each is at least, as a share of the longest. */
const PASSES = 5;
const SHORTEST = 0.45;
/** How much longer than straight a pass may be, in the mean. */
const BENT = 1.22;
/** How far the next pass may lie beside the one before, as a share of their length. */
const ADVANCE = 0.42;
/** What is smaller, in points, is a letter's own to and fro. */
const LEAST_PASS = 7;
/** How much of the way runs in one direction at least: 1 for all of it, 0 for a star's. */
const ALIKE = 0.55;
/** A turn counts once the way back is as long as this share of the longest way so far. */
const TURNS_BACK = 0.3;

/**
 * Whether a stroke goes to and fro closely enough to strike out what is under it: at least five
 * passes, nearly straight, of like length and close to each other. Page space.
 */
export function isScratchOut(way: readonly Point[]): boolean {
  if (way.length < 2 * PASSES) return false;
  const { u, alike } = directionOf(way);
  if (alike < ALIKE) return false;
  const runs = runsOf(way, u);
  const lengths = runs.map(({ from, to }) => distance(way[from], way[to]));
  const longest = Math.max(...lengths);
  if (longest < LEAST_PASS) return false;
  const passes = runs.filter((_, i) => lengths[i] >= SHORTEST * longest);
  // The first and the last may be cut short; between them every run is a pass.
  if (passes.length < PASSES || runs.length - passes.length > 2) return false;
  const bent =
    passes.reduce((sum, { from, to }) => sum + lengthBetween(way, from, to), 0) /
    passes.reduce((sum, { from, to }) => sum + distance(way[from], way[to]), 0);
  if (bent > BENT) return false;
  const middles = passes.map(({ from, to }) => between(way[from], way[to]));
  const advance = distance(middles[0], middles[middles.length - 1]) / (middles.length - 1);
  return advance < ADVANCE * longest;
}

interface Run {
  readonly from: number;
  readonly to: number;
}

/**
 * The direction most of the way runs along, there or back, and how much of it does: the mean of the
 * doubled directions (K. V. Mardia, P. E. Jupp, “Directional statistics”, 2000, 1.1: axial data).
 */
function directionOf(way: readonly Point[]): { u: Point; alike: number } {
  let [c, s, all] = [0, 0, 0];
  for (let i = 1; i < way.length; i++) {
    const [dx, dy] = [way[i].x - way[i - 1].x, way[i].y - way[i - 1].y];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length === 0) continue;
    c += (dx * dx - dy * dy) / length;
    s += (2 * dx * dy) / length;
    all += length;
  }
  const angle = 0.5 * Math.atan2(s, c);
  return { u: { x: Math.cos(angle), y: Math.sin(angle) }, alike: Math.hypot(c, s) / (all || 1) };
}

/** The parts of a way between its turns along a direction. */
function runsOf(way: readonly Point[], u: Point): Run[] {
  const along = way.map((p) => u.x * p.x + u.y * p.y);
  const runs: Run[] = [];
  let start = 0;
  let extreme = 0;
  let sign = 0;
  let longest = 0;
  for (let i = 1; i < along.length; i++) {
    if (sign === 0) {
      if (along[i] !== along[0]) sign = Math.sign(along[i] - along[0]);
      extreme = i;
      continue;
    }
    if (sign * (along[i] - along[extreme]) >= 0) {
      extreme = i;
      longest = Math.max(longest, Math.abs(along[extreme] - along[start]));
    } else if (Math.abs(along[i] - along[extreme]) > TURNS_BACK * longest) {
      runs.push({ from: start, to: extreme });
      start = extreme;
      extreme = i;
      sign = -sign;
    }
  }
  runs.push({ from: start, to: extreme });
  return runs;
}

function lengthBetween(way: readonly Point[], from: number, to: number): number {
  let length = 0;
  for (let i = from + 1; i <= to; i++) length += distance(way[i - 1], way[i]);
  return length;
}

const between = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
