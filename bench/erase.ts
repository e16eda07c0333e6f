import { Erasing, indexOf, newId, type Annotation, type Ink } from '@stylet/core/document';
import { distanceBetweenSegments } from '@stylet/core/geometry';
import {
  samplesFromBase64,
  samplesOf,
  samplesToBase64,
  strokePieces,
  type Polygon,
  type Samples,
  type Swipe,
} from '@stylet/core/ink';
import { median, timed, type Benchmark } from './benchmark';

const STROKES = 20_000;
const RUNS = 5;

/** Small strokes all over an A4 page, and what each of them fills. */
function page(): { annotations: Ink[]; lines: Samples[]; polygons: Map<Annotation, Polygon[]> } {
  const now = new Date().toISOString();
  const annotations = Array.from({ length: STROKES }, (_, i): Ink => {
    const x = 20 + ((i * 37) % 550);
    const y = 20 + ((i * 101) % 790);
    const samples = samplesOf(
      Array.from({ length: 30 }, (_, k) => ({
        x: x + k * 0.4,
        y: y + 3 * Math.sin(k / 4),
        pressure: 0.5,
        tiltX: 0,
        tiltY: 0,
        time: k * 4,
      })),
    );
    return {
      kind: 'ink',
      id: newId(),
      pageId: 'page',
      order: 'a0',
      color: '#22304a',
      opacity: 1,
      author: '',
      created: now,
      modified: now,
      instrument: 'fineliner',
      width: 1,
      smoothing: 0.3,
      samples: samplesToBase64(samples),
    };
  });
  const lines = annotations.map((ink) => samplesFromBase64(ink.samples));
  const polygons = new Map<Annotation, Polygon[]>(
    annotations.map((ink, i) => [ink, strokePieces(ink, lines[i]).map(({ polygon }) => polygon)]),
  );
  return { annotations, lines, polygons };
}

/** A frame or two of erasing at 240 Hz. */
const swipes: Swipe[] = Array.from({ length: 6 }, (_, i) => {
  const at = (k: number) => ({ x: 60 + k * 1.8, y: 400 + 60 * Math.sin(k / 20) });
  return { from: at(i), to: at(i + 1), radius: 5 };
});

/** The same without an index: each stroke's own line, one after the other, for every sample. */
function linearScan(annotations: readonly Ink[], lines: readonly Samples[]): number {
  const touched = new Set<string>();
  for (const { from, to, radius } of swipes) {
    for (const [i, { x, y, length }] of lines.entries()) {
      for (let k = 0; k + 1 < length; k++) {
        const a = { x: x[k], y: y[k] };
        const b = { x: x[k + 1], y: y[k + 1] };
        if (distanceBetweenSegments(a, b, from, to) <= radius) {
          touched.add(annotations[i].id);
          break;
        }
      }
    }
  }
  return touched.size;
}

function erase(name: string, by: 'stroke' | 'area'): Benchmark {
  return {
    name,
    about: `erasing by ${by} among ${STROKES} strokes, against a linear scan`,
    async run() {
      const full = page();
      const polygonsOf = (annotation: Annotation): Polygon[] => full.polygons.get(annotation)!;
      const ratios: number[] = [];
      for (let run = 0; run <= RUNS; run++) {
        let touched = 0;
        const ours = await timed(() => {
          const index = indexOf(full.annotations, polygonsOf);
          const erasing = new Erasing(full.annotations, { by, target: 'both' }, polygonsOf, index);
          for (const swipe of swipes) erasing.swipe(swipe);
          touched = erasing.gone.size;
        });
        let found = 0;
        const scan = await timed(() => (found = linearScan(full.annotations, full.lines)));
        // Ink is wider than the line the scan looks at.
        if (touched < found) throw new Error(`${touched} strokes touched, but ${found} found`);
        if (run > 0) ratios.push(ours / scan);
      }
      return { kind: 'ratio', value: median(ratios), baseline: 'linear scan', goal: 0.05 };
    },
  };
}

export const erasing = [erase('erase-area', 'area'), erase('erase-stroke', 'stroke')];
