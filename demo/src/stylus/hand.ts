import { distance, type Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { seeded } from '@stylet/core/random';
import { gaussian } from './random';

/** How a simulated hand writes. */
export interface Hand {
  readonly seed: number;
  /** Samples a second. */
  readonly rate: number;
  /** Speed on a straight run, points a second. */
  readonly speed: number;
  /** Unsteadiness, in points. */
  readonly jitter: number;
  /** Pressure in the middle of a stroke, 0–1. */
  readonly pressure: number;
}

export const calmHand: Hand = { seed: 1, rate: 240, speed: 190, jitter: 0.06, pressure: 0.55 };

/** Pause between strokes, in ms. */
const LIFT = 90;
/** Share of full speed in the tightest turns: the two-thirds power law's slowing, simplified. */
const SLOWEST = 0.25;

/**
 * Turns pen paths into strokes as a hand would write them: slower in turns, lighter at both ends,
 * a little unsteady. The same seed gives the same strokes. Times in ms, running on from stroke to
 * stroke.
 */
export function write(paths: readonly (readonly Point[])[], hand: Hand = calmHand): Sample[][] {
  const random = seeded(hand.seed);
  let clock = 0;
  return paths.map((path) => {
    const way = rounded(path);
    const total = way.at(-1)!.along;
    const samples: Sample[] = [];
    let along = 0;
    let drift = { x: 0, y: 0 };
    let tilt = 35 + 4 * gaussian(random);
    for (;;) {
      const { point, turn } = placeAt(way, along);
      drift = {
        x: 0.9 * drift.x + 0.3 * hand.jitter * gaussian(random),
        y: 0.9 * drift.y + 0.3 * hand.jitter * gaussian(random),
      };
      tilt += 0.2 * gaussian(random);
      const share = total === 0 ? 0.5 : along / total;
      const attack = Math.min(1, 0.35 + Math.min(share, 1 - share) * 6);
      samples.push({
        x: point.x + drift.x,
        y: point.y + drift.y,
        pressure: Math.min(
          1,
          Math.max(0.05, hand.pressure * attack * (1 + 0.08 * gaussian(random)) + 0.12 * turn),
        ),
        tiltX: Math.round(tilt),
        tiltY: Math.round(20 + drift.y),
        time: clock,
      });
      if (along >= total) break;
      const speed = hand.speed * Math.max(SLOWEST, 1 - turn);
      along = Math.min(total, along + speed / hand.rate);
      clock += 1000 / hand.rate;
    }
    clock += LIFT;
    return samples;
  });
}

interface Way {
  readonly point: Point;
  readonly along: number;
  /** Sharpness of the turn here, 0–1. */
  readonly turn: number;
}

/** Longest straight piece, in points: corners are rounded within it. */
const PIECE = 5;

function subdivided(path: readonly Point[]): Point[] {
  return path.flatMap((point, i) => {
    const before = path[i - 1];
    if (!before) return [point];
    const pieces = Math.max(1, Math.ceil(distance(before, point) / PIECE));
    return Array.from({ length: pieces }, (_, k) => between(before, point, (k + 1) / pieces));
  });
}

/** The path with its corners rounded (Chaikin 1974, twice), and its length so far. */
function rounded(path: readonly Point[]): Way[] {
  let points = subdivided(path);
  for (let i = 0; i < 2 && points.length > 2; i++) {
    const next: Point[] = [points[0]];
    for (let k = 0; k + 1 < points.length; k++) {
      const [a, b] = [points[k], points[k + 1]];
      next.push(between(a, b, 0.25), between(a, b, 0.75));
    }
    next.push(points[points.length - 1]);
    points = next;
  }
  let along = 0;
  return points.map((point, i) => {
    if (i > 0) along += distance(points[i - 1], point);
    return { point, along, turn: turnAt(points, i) };
  });
}

function turnAt(points: readonly Point[], i: number): number {
  const [a, b, c] = [points[i - 1], points[i], points[i + 1]];
  if (!a || !c) return 0;
  const before = Math.atan2(b.y - a.y, b.x - a.x);
  const after = Math.atan2(c.y - b.y, c.x - b.x);
  const angle = Math.abs(Math.atan2(Math.sin(after - before), Math.cos(after - before)));
  return Math.min(1, angle / (Math.PI / 2));
}

function placeAt(way: readonly Way[], along: number): { point: Point; turn: number } {
  let i = 1;
  while (i < way.length - 1 && way[i].along < along) i++;
  const [a, b] = [way[i - 1], way[i] ?? way[i - 1]];
  const length = b.along - a.along;
  const t = length === 0 ? 0 : (along - a.along) / length;
  return { point: between(a.point, b.point, t), turn: a.turn + (b.turn - a.turn) * t };
}

const between = (a: Point, b: Point, t: number): Point => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
});
