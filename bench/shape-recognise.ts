import { recogniseShape } from '@stylet/core/shapes';
import { recognise, templateOf } from '../demo/src/stylus/testing/one-dollar';
import { drawnShapes } from '../demo/src/stylus/testing/drawn-shapes';
import { pairedRatio, type Benchmark } from './benchmark';

/** Strokes of every form, and as many templates as there are forms. */
const STROKES = 40;

export const shapeRecognise: Benchmark = {
  name: 'shape-recognise',
  about: 'shapes recognised in strokes, against the $1 recogniser with a template a form',
  async run() {
    const strokes = drawnShapes(STROKES, 0.12).map(({ stroke }) => stroke);
    const seen = new Set<string>();
    const templates = drawnShapes(1, 0.12, 5).flatMap(({ meant, stroke }) => {
      if (meant === 'none' || seen.has(meant)) return [];
      seen.add(meant);
      return [templateOf(meant, stroke)];
    });
    let found = 0;
    const timed = (answer: (stroke: (typeof strokes)[number]) => string) => (): number => {
      const start = performance.now();
      for (const stroke of strokes) if (answer(stroke) !== '') found++;
      return performance.now() - start;
    };
    const value = await pairedRatio(
      timed((stroke) => recogniseShape(stroke)?.form ?? ''),
      timed((stroke) => recognise(stroke, templates).name),
      21,
    );
    if (found === 0) throw new Error('nothing was recognised');
    return { kind: 'ratio', value, baseline: '$1 recogniser', goal: 1 };
  },
};
