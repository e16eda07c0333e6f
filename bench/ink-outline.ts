import { calmHand, waves, write } from '@stylet/demo/stylus';
import { Stroke, quantise, type Sample } from '@stylet/core/ink';
import { getStroke } from 'perfect-freehand';
import { pairedRatio, type Benchmark } from './benchmark';

/** A stroke of exactly so many samples. */
function samples(count: number): Sample[] {
  const [stroke] = write([waves({ x: 0, y: 0 }, count, 20, count / 60)], {
    ...calmHand,
    speed: 240,
  });
  return Array.from({ length: count }, (_, i) =>
    quantise({ ...stroke[i % stroke.length], time: i * 4 }),
  );
}

/** Both keep an outline that is right after every sample. */
function benchmark(count: number, goal: number, runs: number): Benchmark {
  return {
    name: `ink-outline-${count}`,
    about: `outline kept up to date over ${count} samples, against perfect-freehand`,
    async run() {
      const list = samples(count);
      let sink = 0;
      const ours = (): number => {
        const start = performance.now();
        const stroke = new Stroke({ instrument: 'nib', width: 3, smoothing: 0.3 });
        for (const sample of list) {
          stroke.add(sample);
          sink += stroke.tail()[0].polygon.length;
        }
        return performance.now() - start;
      };
      const theirs = (): number => {
        const start = performance.now();
        const points: [number, number, number][] = [];
        for (const { x, y, pressure } of list) {
          points.push([x, y, pressure]);
          sink += getStroke(points, { size: 3, simulatePressure: false }).length;
        }
        return performance.now() - start;
      };
      const value = await pairedRatio(ours, theirs, runs);
      if (sink === 0) throw new Error('nothing was outlined');
      return { kind: 'ratio', value, baseline: 'perfect-freehand', goal };
    },
  };
}

export const inkOutlines = [benchmark(200, 1, 31), benchmark(5000, 0.1, 3)];
