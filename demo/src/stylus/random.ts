/** A source of numbers in [0, 1) that always gives the same ones for the same seed. */
export type Random = () => number;

/** The generator mulberry32 (T. Ettinger; from memory), good enough for jitter. */
export function seeded(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number about zero with standard deviation 1 (Box and Muller 1958). */
export function gaussian(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random() * list.length)];
