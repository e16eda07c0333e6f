import { calmHand, pathsOfText, write } from '@stylet/demo/stylus';
import type { Sample } from '@stylet/core/ink';

/** Lines of handwriting over the middle of the window, in CSS pixels, as many strokes as take `time` ms; `rate` in Hz. */
export function handwriting(seed: number, time: number, rate = 240): Sample[][] {
  const lines = [0, 1, 2, 3, 4].flatMap((line) =>
    pathsOfText('tide turns at ten past four', {
      x: 200,
      y: 200 + 90 * line,
      size: 46,
      typeface: 'EMSFelix',
    }),
  );
  const strokes = write(lines, { ...calmHand, seed, speed: 420, rate });
  return strokes.filter((stroke) => stroke[stroke.length - 1].time < time);
}
