import { newId, type Annotation } from '@stylet/core/document';
import { boundsOf, type Box, type Point } from '@stylet/core/geometry';
import { samplesOf, samplesToBase64, type Sample } from '@stylet/core/ink';
import { coveredBy, paint } from '@stylet/core/paint';
import { seeded, type Random } from '@stylet/core/random';
import { recogniseShape } from '@stylet/core/shapes';
import { ringed, scratched } from '@stylet/core/shorthand';
import {
  calmHand,
  coil,
  corners,
  line,
  pathsOfText,
  regularCorners,
  ring,
  turned,
  typefaces,
  waves,
  write,
  zigzag,
  type Hand,
} from './index';

const text = [
  'the tide turns at ten past four, note the wind',
  'mmm www uuu illumination minimum zzz eee lll',
  'H = 1.8 m, T = 9 s, L = 126 m; ask about station 27',
];
const sizes = [12, 20, 34];
const speeds = [160, 420];
/** Nobody holds a pen still at the end of a letter: without that only scratching out could misfire. */
const within = (random: Random, low: number, high: number): number => low + (high - low) * random();

const kept = new WeakMap<Annotation, ReturnType<typeof polygonsOf>>();
const polygonsOf = (annotation: Annotation) => paint(annotation, 'whole').flatMap(coveredBy);
const outlinesOf = (annotation: Annotation) => {
  let outlines = kept.get(annotation);
  if (!outlines) kept.set(annotation, (outlines = polygonsOf(annotation)));
  return outlines;
};

const now = '2026-09-01T08:00:00.000Z';
const inkOf = (stroke: readonly Sample[]): Annotation => ({
  kind: 'ink',
  id: newId(),
  pageId: newId(),
  order: 'a0',
  color: '#22304a',
  opacity: 1,
  author: '',
  created: now,
  modified: now,
  instrument: 'fineliner',
  width: 1.1,
  smoothing: 0.3,
  samples: samplesToBase64(samplesOf(stroke)),
});

/** What a stroke would strike out on the way: it is looked at as often as the desk looks. */
function misfires(stroke: readonly Sample[], page: readonly Annotation[]): boolean {
  for (let n = 12; n <= stroke.length + 5; n += 6)
    if (scratched(stroke.slice(0, n), page, outlinesOf).length > 0) return true;
  return false;
}

/** Pages of natural writing, stroke after stroke, with what people draw that acts nowhere. */
function naturalPages(): Sample[][][] {
  const pages: Sample[][][] = [];
  let seed = 1;
  for (const typeface of typefaces)
    for (const size of sizes)
      for (const speed of speeds) {
        const hand: Hand = { ...calmHand, speed, rate: 120, jitter: 0.12, seed: seed++ };
        const paths = text.flatMap((words, i) =>
          pathsOfText(words, { x: 40, y: 80 + 2.2 * i * size, size, typeface }),
        );
        pages.push(write([...paths, ...figures(seeded(seed), size, paths.flat())], hand));
      }
  return pages;
}

/** Circles, boxes, crossings-out and zigzags meant as ink, some of them over the writing. */
function figures(random: Random, size: number, writing: readonly Point[]): Point[][] {
  const place = (): Point => writing[Math.floor(random() * writing.length)];
  const word = 3 * size;
  return [0, 1, 2, 3].flatMap((): Point[][] => {
    const [a, b, c, d, e, f, g] = Array.from({ length: 7 }, place);
    const slant = within(random, -0.3, 0.3) * size;
    return [
      ring(a, word, size),
      corners([
        b,
        { x: b.x + word, y: b.y },
        { x: b.x + word, y: b.y + size },
        { x: b.x, y: b.y + size },
      ]),
      // Words crossed out by one line, by two in one stroke, by a cross and by loops.
      line(c, { x: c.x + word, y: c.y + slant }),
      [d, { x: d.x + word, y: d.y }, { x: d.x, y: d.y + 0.3 * size }],
      coil(e, word, 0.9 * size, 6),
      // Zigzags: a spring beside the text, a wavy underline, a sawtooth below a line.
      turned(zigzag({ x: 420, y: f.y }, 0.8 * size, 3 * size, 7), f, within(random, -0.2, 0.2)),
      waves({ x: g.x, y: g.y + 0.5 * size }, word, 0.12 * size, 6),
      zigzag({ x: g.x, y: g.y + 0.6 * size }, 0.2 * size, 0.05 * size, 3),
      regularCorners(f, 0.6 * size, 5).flatMap((p, i, all) => [p, all[(i + 2) % 5]]),
    ];
  });
}

/** A word and what is drawn over it, in one hand. */
function meant(random: Random, index: number, over: (box: Box) => Point[]) {
  const typeface = typefaces[index % typefaces.length];
  const size = sizes[Math.floor(index / 2) % sizes.length];
  const words = ['swell', 'groyne', 'fetch', 'no', '126 m', 'longshore drift'];
  const paths = pathsOfText(words[index % words.length], { x: 100, y: 200, size, typeface });
  const hand: Hand = { ...calmHand, rate: 120, jitter: 0.15, seed: Math.floor(1e9 * random()) };
  const word = write(paths, { ...hand, speed: speeds[index % 2] }).map(inkOf);
  const [stroke] = write([over(boundsOf(paths.flat())!)], { ...hand, speed: 500 });
  return { word, stroke };
}

const scratchOver =
  (random: Random) =>
  (box: Box): Point[] => {
    const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
    const passes = 5 + Math.floor(4 * random()) + Math.round(w / (2.2 * h));
    // Upright strokes along a long word, or to and fro over all of it.
    if (random() < 0.5 || w < 1.4 * h)
      return turned(
        zigzag({ x: box.x0 - 2, y: box.y0 - 1 }, w + 4, h + 2, passes),
        { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 },
        within(random, -0.06, 0.06),
      );
    const steps = Math.max(6, Math.round((3 * w) / h));
    return Array.from({ length: steps + 1 }, (_, i) => ({
      x: box.x0 - 2 + ((w + 4) * i) / steps + (i % 2 === 0 ? -0.15 : 0.15) * h,
      y: i % 2 === 0 ? box.y1 + 2 : box.y0 - 2,
    }));
  };

const ringOver =
  (random: Random) =>
  (box: Box): Point[] => {
    const middle = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    const [rx, ry] = [0.75 * (box.x1 - box.x0), 0.95 * (box.y1 - box.y0)];
    return ring(middle, rx * within(random, 0.95, 1.2), ry * within(random, 0.95, 1.2));
  };

const boxOver =
  (random: Random) =>
  (box: Box): Point[] => {
    const by = within(random, 6, 12);
    const [x0, y0, x1, y1] = [box.x0 - by, box.y0 - by, box.x1 + by, box.y1 + by];
    const points = [
      { x: x0, y: y0 },
      { x: x1, y: y0 + within(random, -2, 2) },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ];
    return corners(points, within(random, 0, 5));
  };

test('shorthand leaves natural writing alone and finds what is meant', () => {
  let strokes = 0;
  let misfired = 0;
  for (const page of naturalPages()) {
    const annotations: Annotation[] = [];
    for (const stroke of page) {
      strokes++;
      if (misfires(stroke, annotations)) misfired++;
      annotations.push(inkOf(stroke));
    }
  }

  const random = seeded(77);
  const found = { scratch: 0, ring: 0, box: 0 };
  for (let i = 0; i < 100; i++) {
    if (i % 5 < 2) {
      const { word, stroke } = meant(random, i, scratchOver(random));
      if (scratched(stroke, word, outlinesOf).length === word.length) found.scratch++;
    } else if (i % 5 < 4) {
      const { word, stroke } = meant(random, i, ringOver(random));
      if (ringed(stroke, word, outlinesOf).length === word.length) found.ring++;
    } else {
      const { stroke } = meant(random, i, boxOver(random));
      if (recogniseShape(stroke)?.form === 'rectangle') found.box++;
    }
  }
  const all = found.scratch + found.ring + found.box;
  process.stdout.write(
    `\nShorthand: ${misfired} of ${strokes} strokes misfire; ${all} of 100 meant are found ` +
      `(scratch out ${found.scratch} of 40, ring ${found.ring} of 40, box ${found.box} of 20)\n`,
  );
  expect(misfired / strokes).toBeLessThan(1 / 500);
  expect(all).toBeGreaterThanOrEqual(95);
});
