import { OneEuroFilter as PublishedFilter } from '1eurofilter';
import fc from 'fast-check';
import { OneEuroFilter, smoothingFactor } from './one-euro';

// Casiez, Roussel, Vogel, CHI 2012, equations 3–5: α = 1 / (1 + τ/Te), τ = 1 / (2π fc).
test('the smoothing factor is the published one', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.0001, max: 1, noNaN: true }),
      fc.double({ min: 0.01, max: 200, noNaN: true }),
      (te, fc_) => {
        const tau = 1 / (2 * Math.PI * fc_);
        expect(smoothingFactor(te, fc_)).toBeCloseTo(1 / (1 + tau / te), 10);
      },
    ),
  );
});

// The authors' own implementation, package 1eurofilter (Giguey and Casiez, Inria 2019).
test.each([0, 0.05, 0.7])(
  'with beta %d it gives what the authors’ implementation gives',
  (beta) => {
    const ours = new OneEuroFilter({ minCutoff: 1.2, beta, derivativeCutoff: 1 });
    const theirs = new PublishedFilter(120, 1.2, beta, 1);
    let time = 0;
    for (let i = 0; i < 500; i++) {
      time += i % 3 === 0 ? 0.004 : 0.009;
      const value = 40 * Math.sin(i / 20) + (i % 7) * 0.4;
      expect(ours.filter(value, time)).toBeCloseTo(theirs.filter(value, time), 9);
    }
  },
);

test('a resting pen is steadied, a fast one hardly delayed', () => {
  const settings = { minCutoff: 1, beta: 0.3, derivativeCutoff: 1 };
  const resting = new OneEuroFilter(settings);
  let spread = 0;
  for (let i = 0; i < 400; i++) {
    const value = resting.filter(i % 2 === 0 ? 0.1 : -0.1, i / 240);
    if (i > 200) spread = Math.max(spread, Math.abs(value));
  }
  expect(spread).toBeLessThan(0.02);
  const fast = new OneEuroFilter(settings);
  let lag = 0;
  for (let i = 0; i < 400; i++) {
    const value = i * 4;
    lag = value - fast.filter(value, i / 240);
  }
  expect(lag).toBeLessThan(4);
});

test('time that stands still keeps the last value', () => {
  const filter = new OneEuroFilter({ minCutoff: 1, beta: 0, derivativeCutoff: 1 });
  expect(filter.filter(3, 0)).toBe(3);
  expect(filter.filter(9, 0)).toBe(3);
});
