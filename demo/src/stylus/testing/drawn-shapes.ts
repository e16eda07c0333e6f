import type { Point } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';
import { seeded, type Random } from '@stylet/core/random';
import type { ShapeForm } from '@stylet/core/shapes';
import {
  arrowInOne,
  calmHand,
  corners,
  pathsOfText,
  pick,
  regularCorners,
  ring,
  spiral,
  turned,
  typefaces,
  waves,
  write,
  zigzag,
} from '../index';

/** A stroke and what it was meant to be. */
export interface Drawn {
  readonly meant: ShapeForm | 'none';
  readonly stroke: readonly Sample[];
}

const middle = { x: 300, y: 300 };
const within = (random: Random, low: number, high: number): number => low + (high - low) * random();

/** Each form as a hand draws it: of any size, turned, begun anywhere, ends that miss each other. */
const drawings: Record<ShapeForm, (random: Random) => Point[]> = {
  line: (random) => {
    const reach = within(random, 20, 220);
    const [end] = turned([{ x: middle.x + reach, y: middle.y }], middle, within(random, -3, 3));
    return [middle, end];
  },
  arrow: (random) => {
    const reach = within(random, 50, 220);
    const [end] = turned([{ x: middle.x + reach, y: middle.y }], middle, within(random, -3, 3));
    return arrowInOne(middle, end, reach * within(random, 0.18, 0.35));
  },
  triangle: (random) => {
    const radius = within(random, 18, 110);
    const points = regularCorners(middle, radius, 3, within(random, 0, 6)).map((p) => ({
      x: p.x + within(random, -0.2, 0.2) * radius,
      y: p.y + within(random, -0.2, 0.2) * radius,
    }));
    return corners(points, within(random, 0, 0.15 * radius));
  },
  rectangle: (random) => {
    const [w, h] = [within(random, 25, 180), within(random, 25, 180)];
    const box = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([x, y]) => ({ x: middle.x + (x * w) / 2, y: middle.y + (y * h) / 2 }));
    const first = Math.floor(random() * 4);
    const points = [...box.slice(first), ...box.slice(0, first)];
    return turned(
      corners(random() < 0.5 ? points : points.reverse(), within(random, 0, 6)),
      middle,
      within(random, -0.5, 0.5),
    );
  },
  polygon: (random) => {
    const radius = within(random, 35, 110);
    const count = 5 + Math.floor(random() * 2);
    return corners(
      regularCorners(middle, radius, count, within(random, 0, 6)),
      within(random, 0, 0.1 * radius),
    );
  },
  ellipse: (random) => {
    const long = within(random, 30, 130);
    const short = long * within(random, 0.3, 0.68);
    return turned(ring(middle, long, short), middle, within(random, 0, 6));
  },
  circle: (random) => {
    const radius = within(random, 12, 110);
    return turned(
      ring(middle, radius, radius * within(random, 0.93, 1)),
      middle,
      within(random, 0, 6),
    );
  },
};

const others: readonly ((random: Random) => Point[])[] = [
  (random) => zigzag(middle, within(random, 30, 120), within(random, 10, 60), 5),
  (random) => spiral(middle, within(random, 20, 90), within(random, 2, 4)),
  (random) => waves(middle, within(random, 60, 200), within(random, 6, 20), 3),
  (random) => {
    const text = 'abdeghkmnswyz2358&';
    const size = within(random, 40, 160);
    const letter = text[Math.floor(random() * text.length)];
    const typeface = pick(random, typefaces);
    return pathsOfText(letter, { ...middle, size, typeface }).sort(
      (a, b) => b.length - a.length,
    )[0];
  },
  // An open half ring.
  (random) => ring(middle, within(random, 20, 100), within(random, 20, 100)).slice(0, 22),
];

/** `count` strokes of each form, and as many that are none, with as unsteady a hand as asked. */
export function drawnShapes(count: number, jitter: number, seed = 1): Drawn[] {
  const random = seeded(seed);
  const stroke = (path: readonly Point[]): readonly Sample[] =>
    write([path], {
      ...calmHand,
      jitter,
      speed: 260,
      rate: 120,
      seed: Math.floor(random() * 1e9),
    })[0];
  return Array.from({ length: count }, (_, i): Drawn[] => [
    ...(Object.keys(drawings) as ShapeForm[]).map((meant): Drawn => ({
      meant,
      stroke: stroke(drawings[meant](random)),
    })),
    { meant: 'none', stroke: stroke(others[i % others.length](random)) },
  ]).flat();
}
