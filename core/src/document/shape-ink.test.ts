import { areaOf, polygonBounds, samplesFromBase64, strokeOutline } from '../ink/index';
import { coveredBy, paint } from '../paint/index';
import { annotationSchema, type ShapeAnnotation } from './annotation';
import { apply, invert } from './apply';
import { Erasing } from './erase';
import { newId } from './ids';
import { inkOfShape } from './shape-ink';
import { documentState } from './state';

const now = '2026-09-01T08:00:00.000Z';
const shape = (change: Partial<ShapeAnnotation> = {}): ShapeAnnotation => ({
  kind: 'shape',
  id: newId(),
  pageId: newId(),
  order: 'a0',
  color: '#22304a',
  opacity: 1,
  author: '',
  created: now,
  modified: now,
  instrument: 'fineliner',
  width: 2,
  smoothing: 0.4,
  form: 'rectangle',
  points: [
    { x: 10, y: 10 },
    { x: 110, y: 10 },
    { x: 110, y: 60 },
    { x: 10, y: 60 },
  ],
  bends: [],
  fill: 0,
  ...change,
});
const outlinesOf = (annotation: Parameters<typeof paint>[0]) =>
  paint(annotation, 'whole').flatMap(coveredBy);

test('a shape covers what its outline is wide, with sharp corners but for the pen’s roundness', () => {
  const [outline] = outlinesOf(shape());
  expect(polygonBounds([outline])).toEqual({
    x0: expect.closeTo(9, 1),
    y0: expect.closeTo(9, 1),
    x1: expect.closeTo(111, 1),
    y1: expect.closeTo(61, 1),
  });
  // A corner of the middle line is reached: at a turn of a right angle the pen covers its own disc.
  const reach = Math.max(
    ...Array.from(outline).flatMap((x, i) => (i % 2 === 0 ? [x + outline[i + 1]] : [])),
  );
  expect(reach).toBeCloseTo(110 + 60 + Math.SQRT2, 1);
});

test('turned into ink it is the same ink: two strokes for an arrow, one for the rest', () => {
  const arrow = shape({ form: 'arrow', points: shape().points.slice(0, 2) });
  for (const [annotation, count] of [
    [shape(), 1],
    [arrow, 2],
    [shape({ instrument: 'broadEdge', width: 6 }), 1],
  ] as const) {
    const inks = inkOfShape(annotation);
    expect(inks).toHaveLength(count);
    const drawn = inks.flatMap((ink) => strokeOutline(ink, samplesFromBase64(ink.samples)));
    const whole = outlinesOf(annotation);
    drawn.forEach(({ polygon }, i) => expect(areaOf(polygon) / areaOf(whole[i])).toBeCloseTo(1, 2));
    for (const ink of inks) expect(annotationSchema.safeParse(ink).success).toBe(true);
  }
});

test('the filling is drawn first, lighter than the outline', () => {
  const [area, outline] = paint(shape({ fill: 0.25, opacity: 0.8 }));
  expect(area.opacity).toBeCloseTo(0.2);
  expect(outline.opacity).toBe(0.8);
  expect(Math.abs(areaOf(area.pieces[0].polygon))).toBeCloseTo(100 * 50, 0);
});

test('a shape that is changed goes back to what it was', () => {
  const annotation = shape();
  const before = documentState('', [annotation]);
  const { pageId, id } = annotation;
  const effect = {
    type: 'annotation.change',
    pageId,
    annotationId: id,
    fields: { form: 'polygon', points: annotation.points.slice(1), bends: [4], fill: 1 },
  } as const;
  const fields = { ...effect.fields, points: [...effect.fields.points], bends: [4] };
  const after = apply(before, { ...effect, fields });
  expect(after.annotations[pageId][id]).toMatchObject({ form: 'polygon', fill: 1 });
  const back = invert(before, { ...effect, fields })!;
  expect(apply(after, back)).toEqual(before);
});

test('an eraser by area cuts a shape like ink, by stroke it takes it whole', () => {
  const annotation = shape();
  const swipe = { from: { x: 60, y: 0 }, to: { x: 60, y: 30 }, radius: 5 };
  const byArea = new Erasing([annotation], { by: 'area', target: 'ink' }, outlinesOf);
  expect(byArea.swipe(swipe)).toBe(true);
  const { left } = byArea;
  expect(left.map(({ kind }) => kind)).toEqual(['ink', 'ink']);
  for (const ink of left) {
    const { x, y } = samplesFromBase64(ink.samples);
    // The side further down was not touched.
    x.forEach((at, k) => y[k] < 40 && expect(Math.abs(at - 60)).toBeGreaterThan(4.9));
  }
  const byStroke = new Erasing([annotation], { by: 'stroke', target: 'both' }, outlinesOf);
  byStroke.swipe(swipe);
  expect(byStroke.effects()).toHaveLength(1);
  const highlights = new Erasing([annotation], { by: 'area', target: 'highlights' }, outlinesOf);
  expect(highlights.swipe(swipe)).toBe(false);
});

test('a form wants its own number of points', () => {
  expect(annotationSchema.safeParse(shape()).success).toBe(true);
  expect(annotationSchema.safeParse(shape({ form: 'circle' })).success).toBe(false);
  expect(annotationSchema.safeParse(shape({ form: 'triangle' })).success).toBe(false);
});
