import { encodeSamples, samplesOf } from '@stylet/core/ink';
import { seeded } from '@stylet/core/random';
import { calmHand, pathsOfText, typefaces, widthOfText, write } from './index';

const line = { x: 100, y: 200, size: 24 };

test.each(typefaces)('%s writes a line of text between its edges', (typeface) => {
  const paths = pathsOfText('longshore drift', { ...line, typeface });
  expect(paths.length).toBeGreaterThan(8);
  const width = widthOfText('longshore drift', 24, typeface);
  for (const { x, y } of paths.flat()) {
    expect(x).toBeGreaterThan(100 - 12);
    expect(x).toBeLessThan(100 + width + 12);
    expect(Math.abs(y - 200)).toBeLessThan(36);
  }
});

test('the same seed writes the same strokes, another one others', () => {
  const paths = pathsOfText('spit', { ...line, typeface: 'EMSFelix' });
  expect(write(paths)).toEqual(write(paths));
  expect(write(paths, { ...calmHand, seed: 2 })).not.toEqual(write(paths));
});

test('strokes are as a hand makes them: light at the ends, slower in turns, time running on', () => {
  const corner = [
    [
      { x: 0, y: 0 },
      { x: 200, y: 0 },
      { x: 200, y: 200 },
    ],
  ];
  const [stroke] = write(corner, { ...calmHand, jitter: 0 });
  const steps = stroke.slice(1).map((s, i) => Math.hypot(s.x - stroke[i].x, s.y - stroke[i].y));
  const near = (x: number, y: number): number =>
    steps[stroke.findIndex((s) => Math.hypot(s.x - x, s.y - y) < 12)];
  expect(near(198, 8)).toBeLessThan(near(100, 0));
  const pressures = stroke.map((s) => s.pressure);
  expect(pressures[0]).toBeLessThan(pressures[Math.floor(pressures.length / 4)]);
  const times = write([...corner, ...corner])
    .flat()
    .map((s) => s.time);
  for (let i = 1; i < times.length; i++) expect(times[i]).toBeGreaterThan(times[i - 1]);
});

test('handwriting is stored in at most six bytes a sample', () => {
  const strokes = write(
    pathsOfText('slope matters, check with field data', { ...line, typeface: 'EMSFelix' }),
  );
  const samples = strokes.reduce((sum, stroke) => sum + stroke.length, 0);
  const bytes = strokes.reduce((sum, stroke) => sum + encodeSamples(samplesOf(stroke)).length, 0);
  expect(bytes / samples).toBeLessThanOrEqual(6);
});

test('the generator is even', () => {
  const random = seeded(5);
  const mean = Array.from({ length: 20_000 }, random).reduce((a, b) => a + b) / 20_000;
  expect(mean).toBeCloseTo(0.5, 1);
});
