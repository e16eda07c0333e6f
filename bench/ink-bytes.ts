import { calmHand, pathsOfText, write } from '@stylet/demo/stylus';
import { encodeSamples, sampleAt, samplesOf } from '@stylet/core/ink';
import type { Benchmark } from './benchmark';

/** Handwriting as a pen reports it, with pressure and tilt, at 240 Hz. */
const LINES = [
  'The spring tide turns at ten past four',
  'measure the bar before it welds on',
  'wind W 5, swell from the north-west',
  'station 7: medium sand, shell 12 %',
];

export const inkBytes: Benchmark = {
  name: 'ink-bytes',
  about: 'bytes stored a sample of handwriting, against JSON of the same samples',
  run() {
    let stored = 0;
    let json = 0;
    LINES.forEach((line, i) => {
      const place = { x: 60, y: 100 + 30 * i, size: 18, typeface: 'EMSFelix' } as const;
      for (const stroke of write(pathsOfText(line, place), { ...calmHand, seed: i + 1 })) {
        const samples = samplesOf(stroke);
        stored += encodeSamples(samples).length;
        json += JSON.stringify(stroke.map((_, k) => sampleAt(samples, k))).length;
      }
    });
    if (json < 100_000) throw new Error('too little was written');
    return Promise.resolve({
      kind: 'ratio',
      value: stored / json,
      baseline: 'JSON of the same samples',
      goal: 0.15,
      note: `${stored} bytes, ${json} of JSON`,
    });
  },
};
