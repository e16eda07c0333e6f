import { toPoints } from '../paper/index';

/** A mark on an edge: how far along it, in points, and what it counts, in mm. */
export interface Tick {
  readonly at: number;
  readonly millimetres: number;
  /** 0: the least marks; 1: five of them; 2: ten, which carry their number. */
  readonly rank: 0 | 1 | 2;
}

/** Steps between the least marks, in mm. */
const STEPS = [0.1, 0.5, 1, 2, 5, 10, 20, 50, 100] as const;
/** The least marks are never nearer to each other than this, in CSS pixels. */
const NEAREST = 5;

/** The marks of an edge of `length` points at a scale in CSS pixels a point. */
export function ticksOf(length: number, scale: number): Tick[] {
  const step = STEPS.find((mm) => toPoints(mm) * scale >= NEAREST) ?? STEPS[STEPS.length - 1];
  const count = Math.floor(length / toPoints(step) + 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => ({
    at: toPoints(i * step),
    millimetres: Math.round(i * step * 10) / 10,
    rank: i % 10 === 0 ? 2 : i % 5 === 0 ? 1 : 0,
  }));
}
