import { distance } from '@stylet/core/geometry';
import type { Sample } from '@stylet/core/ink';

/** How far a pen may stray that is still held, in CSS pixels. */
const STRAYS = 18;

/** Whether a pen has stayed about where it was held. */
export const staysNear = (
  held: Sample,
  samples: readonly Sample[],
  pointsPerPixel: number,
): boolean => samples.every((sample) => distance(sample, held) <= STRAYS * pointsPerPixel);
