import type { Sample } from '@stylet/core/ink';
import { seeded } from '@stylet/core/random';
import { gaussian } from './random';

/** A contact of the hand at a moment. Place and radius in CSS pixels, time in ms. */
export interface Contact {
  readonly time: number;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** How the hand rests. */
export interface Resting {
  readonly seed: number;
  /** Where it lies of the pen's tip, in CSS pixels; below and to the right for the right hand. */
  readonly offset: { readonly x: number; readonly y: number };
  /** Radius of the contact once it rests. */
  readonly radius: number;
  /** How long before the pen it comes down, and after it goes up, in ms. */
  readonly around: number;
}

export const rightPalm: Resting = { seed: 1, offset: { x: 70, y: 110 }, radius: 36, around: 120 };

/** Contacts a second. */
const RATE = 30;

/**
 * The contacts of a palm that rests beside the pen while it writes strokes: it comes down small and
 * grows, slides along more slowly than the pen goes, and trembles. The same seed gives the same ones.
 */
export function palmBeside(
  strokes: readonly (readonly Sample[])[],
  resting: Resting = rightPalm,
): Contact[] {
  const random = seeded(resting.seed);
  const samples = strokes.flat();
  const [first, last] = [samples[0], samples[samples.length - 1]];
  const contacts: Contact[] = [];
  let lag = { x: first.x, y: first.y };
  let next = 0;
  for (let t = first.time - resting.around; t <= last.time + resting.around; t += 1000 / RATE) {
    while (next + 1 < samples.length && samples[next + 1].time <= t) next++;
    const pen = samples[next];
    lag = { x: lag.x + 0.06 * (pen.x - lag.x), y: lag.y + 0.06 * (pen.y - lag.y) };
    const grown = Math.min(1, (contacts.length + 1) / 4);
    contacts.push({
      time: t,
      x: lag.x + resting.offset.x + 0.4 * gaussian(random),
      y: lag.y + resting.offset.y + 0.4 * gaussian(random),
      radius: resting.radius * (0.35 + 0.65 * grown),
    });
  }
  return contacts;
}
