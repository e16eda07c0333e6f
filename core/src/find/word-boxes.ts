import { unite, type Box } from '../geometry/index';
import { BOX } from './page-words';

/** Boxes round words, given in order, those that stand in one line together. Page space. */
export function boxesOfWords(words: readonly number[], boxes: Float32Array): Box[] {
  const runs: Box[] = [];
  let line = -1;
  for (const word of words) {
    const [x0, y0, x1, y1, on] = boxes.subarray(BOX * word, BOX * (word + 1));
    const box = { x0, y0, x1, y1 };
    if (on === line) runs.push(unite(runs.pop()!, box));
    else runs.push(box);
    line = on;
  }
  return runs;
}
