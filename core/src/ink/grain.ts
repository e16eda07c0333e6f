/** The grain of the paper: `size` points square, of `pixels` × `pixels`; it repeats. */
export const GRAIN = { size: 48, pixels: 192, levels: 12 } as const;

/** The level of grain for a tone of 0–1: 1 (light) to `GRAIN.levels` (nearly solid). */
export function grainLevel(tone: number): number {
  return Math.min(GRAIN.levels, Math.max(1, Math.ceil(tone * GRAIN.levels)));
}

/** The share of the paper that a level covers. */
export const grainCoverage = (level: number): number => 0.15 + (0.83 * level) / GRAIN.levels;

let heights: Uint16Array | undefined;

/**
 * Which pixels of the grain a level covers, row by row: 1 for ink. Each level covers all that the
 * lighter ones do, so that ink of one level over that of another leaves no seams.
 */
export function grainTile(level: number): Uint8Array {
  heights ??= paperHeights();
  const limit = grainCoverage(level) * heights.length;
  return Uint8Array.from(heights, (rank) => (rank < limit ? 1 : 0));
}

/** The pixels of the paper ranked by height: seeded noise, blurred to the size of its fibres. */
function paperHeights(): Uint16Array {
  const { pixels } = GRAIN;
  const random = randomNumbers(20260901);
  const noise = Float64Array.from({ length: pixels * pixels }, random);
  const fine = blurred(noise, pixels, 1);
  const coarse = blurred(noise, pixels, 4);
  const height = fine.map((value, i) => value + 1.2 * coarse[i]);
  const order = [...height.keys()].sort((a, b) => height[b] - height[a]);
  const ranks = new Uint16Array(height.length);
  order.forEach((pixel, rank) => (ranks[pixel] = rank));
  return ranks;
}

/** Box blur in both directions, twice, around the edges. */
function blurred(values: Float64Array, pixels: number, radius: number): Float64Array {
  let from = values;
  for (const [stepX, stepY] of [
    [1, 0],
    [0, 1],
    [1, 0],
    [0, 1],
  ]) {
    const to = new Float64Array(from.length);
    for (let y = 0; y < pixels; y++) {
      for (let x = 0; x < pixels; x++) {
        let sum = 0;
        for (let k = -radius; k <= radius; k++) {
          const column = (x + k * stepX + pixels) % pixels;
          const row = (y + k * stepY + pixels) % pixels;
          sum += from[row * pixels + column];
        }
        to[y * pixels + x] = sum / (2 * radius + 1);
      }
    }
    from = to;
  }
  return from;
}

/** Marsaglia's xorshift (2003) with 32 bits: the same paper everywhere. */
function randomNumbers(seed: number): () => number {
  let state = seed;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
}
