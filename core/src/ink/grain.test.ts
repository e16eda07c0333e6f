import { GRAIN, grainCoverage, grainLevel, grainTile } from './grain';

const levels = Array.from({ length: GRAIN.levels }, (_, i) => i + 1);

test('each level covers its share of the paper, and all that lighter ones cover', () => {
  let lighter = new Uint8Array(GRAIN.pixels ** 2);
  for (const level of levels) {
    const tile = grainTile(level);
    const covered = tile.reduce((sum, ink) => sum + ink, 0) / tile.length;
    expect(covered).toBeCloseTo(grainCoverage(level), 4);
    expect(lighter.every((ink, i) => ink <= tile[i])).toBe(true);
    lighter = Uint8Array.from(tile);
  }
});

test('tones go to levels from light to nearly solid', () => {
  expect([0, 0.01, 0.5, 1, 2].map(grainLevel)).toEqual([1, 1, 6, 12, 12]);
});

test('the tile goes on without a seam', () => {
  // The edge between the last row and the first is no different from those inside.
  const tile = grainTile(6);
  const { pixels } = GRAIN;
  const changes = (a: number, b: number): number =>
    Array.from({ length: pixels }, (_, x) => tile[a * pixels + x] ^ tile[b * pixels + x]).reduce(
      (sum, change) => sum + change,
      0,
    );
  const inner = Array.from({ length: 40 }, (_, k) => changes(k * 4, k * 4 + 1));
  expect(changes(pixels - 1, 0)).toBeLessThanOrEqual(Math.max(...inner));
});
