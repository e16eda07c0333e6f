import { distance } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';

/** How far a pen may stray that is still held, in CSS pixels. */
const STRAYS = 18;

/** Tells whether a pen stays about where it was held. */
export function staysNear(pointsPerPixel: number): (samples: readonly Sample[]) => boolean {
  let anchor: Sample | undefined;
  return (samples) => {
    anchor ??= samples[0];
    return samples.every((sample) => distance(sample, anchor!) <= STRAYS * pointsPerPixel);
  };
}
