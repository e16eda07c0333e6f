import { enclosedBy, indexOf, type Annotation } from '@stylet/core/document';
import { polygonBounds, strokeOutline, samplesFromBase64, type Polygon } from '@stylet/core/ink';
import { pairedRatio, type Benchmark } from './benchmark';
import { fullPage } from './full-page';

const STROKES = 20_000;
/** Lassos a run, each about a word. */
const LASSOS = 40;

export const lassoHit: Benchmark = {
  name: 'lasso-hit',
  about: `lassos about words among ${STROKES} strokes, against looking at every stroke`,
  async run() {
    const annotations: readonly Annotation[] = fullPage('page', STROKES);
    const outlines = new Map<Annotation, readonly Polygon[]>(
      annotations.map((a) => [
        a,
        a.kind === 'ink'
          ? strokeOutline(a, samplesFromBase64(a.samples)).map(({ polygon }) => polygon)
          : [],
      ]),
    );
    const outlinesOf = (a: Annotation): readonly Polygon[] => outlines.get(a)!;
    const index = indexOf(annotations, outlinesOf);
    const regions = Array.from({ length: LASSOS }, (_, i) => {
      const [box] = outlinesOf(annotations[(i * 487) % STROKES]);
      const { x0, y0 } = polygonBounds([box])!;
      return Float64Array.from(
        Array.from({ length: 48 }, (_v, k) => {
          const angle = (k / 48) * 2 * Math.PI;
          return [x0 + 15 + 25 * Math.cos(angle), y0 + 4 + 12 * Math.sin(angle)];
        }).flat(),
      );
    });
    let found = 0;
    const timed = (look: object) => (): number => {
      const start = performance.now();
      for (const region of regions)
        found += enclosedBy(region, annotations, { outlinesOf, ...look }).length;
      return performance.now() - start;
    };
    const value = await pairedRatio(timed({ index }), timed({}), 9);
    if (found === 0) throw new Error('nothing was found');
    return { kind: 'ratio', value, baseline: 'linear scan', goal: 0.05 };
  },
};
