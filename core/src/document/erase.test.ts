import { samplesFromBase64, samplesOf, samplesToBase64, strokePieces } from '../ink/index';
import { isMarkup, type Annotation, type Foreign, type Ink, type Markup } from './annotation';
import { apply } from './apply';
import { boxPolygon } from './enclosed';
import { Erasing, isErasable, type EraserSettings } from './erase';
import { newId } from './ids';
import { documentState, paintingOrder } from './state';

const pageId = newId();
const common = {
  pageId,
  order: 'a0',
  color: '#22304a',
  opacity: 1,
  author: 'A',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
};
const ink = (y: number, change: Partial<Ink> = {}): Ink => ({
  ...common,
  kind: 'ink',
  id: newId(),
  instrument: 'fineliner',
  width: 1,
  smoothing: 0,
  samples: samplesToBase64(
    samplesOf(
      Array.from({ length: 51 }, (_, i) => ({
        x: i * 2,
        y,
        pressure: 0.5,
        tiltX: 0,
        tiltY: 0,
        time: i * 10,
      })),
    ),
  ),
  ...change,
});
const markup: Markup = {
  ...common,
  kind: 'highlight',
  id: newId(),
  quads: [[0, 40, 100, 40, 0, 60, 100, 60]],
  contents: 'words',
};
const foreign: Foreign = {
  ...common,
  kind: 'foreign',
  id: newId(),
  subtype: 'Stamp',
  box: { x0: 0, y0: 40, x1: 100, y1: 60 },
  contents: '',
  origin: { object: 4, generation: 0, modified: common.modified },
};
const polygonsOf = (annotation: Annotation) =>
  annotation.kind === 'ink'
    ? strokePieces(annotation, samplesFromBase64(annotation.samples)).map(({ polygon }) => polygon)
    : !isMarkup(annotation)
      ? 'box' in annotation
        ? [boxPolygon(annotation.box)]
        : []
      : annotation.quads.map(([ax, ay, bx, by, cx, cy, dx, dy]) =>
          Float64Array.of(ax, ay, bx, by, dx, dy, cx, cy),
        );

/** Erases straight down at x = 50. */
function erased(annotations: readonly Annotation[], settings: EraserSettings): Erasing {
  const erasing = new Erasing(annotations, settings, polygonsOf);
  for (let y = 0; y < 100; y += 5)
    erasing.swipe({ from: { x: 50, y }, to: { x: 50, y: y + 5 }, radius: 4 });
  return erasing;
}

test('by stroke, what is touched goes whole', () => {
  const [a, b] = [ink(20), ink(150)];
  const erasing = erased([a, b], { by: 'stroke', target: 'both' });
  expect([...erasing.gone.keys()]).toEqual([a.id]);
  expect(erasing.effects()).toEqual([{ type: 'annotation.remove', pageId, annotationId: a.id }]);
});

test('by area, what is left of a stroke takes its place, in its colours and times', () => {
  const whole = ink(20);
  const other = ink(150);
  const before = documentState('', [whole, other]);
  const erasing = erased([whole, other], { by: 'area', target: 'both' });
  const after = erasing.effects().reduce(apply, before);
  const left = paintingOrder(after.annotations[pageId]).filter((a) => a.id !== other.id) as Ink[];
  expect(after.annotations[pageId][other.id]).toBe(other);
  expect(left).toHaveLength(2);
  const ends = left
    .map((part) => samplesFromBase64(part.samples))
    .map(({ x, length }) => [x[0], x[length - 1]])
    .sort((a, b) => a[0] - b[0]);
  // The eraser reaches 4 pt, the ink half a point.
  expect(ends).toEqual([
    [0, 45.5],
    [54.5, 100],
  ]);
  for (const part of left) expect(part).toMatchObject({ color: whole.color, width: 1 });
  // The second part was begun 54.5 pt into the stroke, at 5 ms a point.
  expect(left.map((part) => part.created).sort()).toEqual([
    '2026-09-01T08:00:00.000Z',
    '2026-09-01T08:00:00.272Z',
  ]);
});

test.each([
  ['both', [true, true, true, true]],
  ['ink', [true, false, false, false]],
  ['highlights', [false, true, true, false]],
] as const)('set to %s, the eraser takes just that', (target, expected) => {
  const all = [ink(20), ink(50, { instrument: 'highlighter' }), markup, foreign];
  expect(all.map((annotation) => isErasable(annotation, target))).toEqual(expected);
  const { gone } = erased(all, { by: 'stroke', target });
  expect(all.map(({ id }) => gone.has(id))).toEqual(expected);
});

test('what is locked or not to be seen is not erased, whatever erases', () => {
  const locked = { locked: true } as const;
  const all = [ink(10, locked), ink(20, { hidden: true }), { ...markup, ...locked }, ink(30)];
  expect(all.map((annotation) => isErasable(annotation, 'both'))).toEqual([
    false,
    false,
    false,
    true,
  ]);
});
