import type { Random } from '@stylet/core/random';

/** A number about zero with standard deviation 1 (Box and Muller 1958). */
export function gaussian(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random() * list.length)];
