import { polygonArea, polygonContains } from 'd3-polygon';
import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import {
  applyToPoint,
  compose as composed,
  rotateDEG,
  scale as scaled,
} from 'transformation-matrix';
import {
  changed,
  enclosedBy,
  newId,
  paintingOrder,
  reordered,
  shareInside,
  transformedFields,
  bakedInk,
  type Annotation,
  type Ink,
} from '../document/index';
import { compose, distance, identity, inverse, transform, type Point } from '../geometry/index';
import { areaOf, samplesFromBase64, samplesOf, samplesToBase64, trackOf } from '../ink/index';
import { coveredBy, paint } from '../paint/index';
import { copiesOf, gripMatrix, frameParts, scaling, turning, type FramePart } from './index';

const number = fc.double({ min: -200, max: 200, noNaN: true });
const point = fc.record({ x: number, y: number });
const frame = fc
  .tuple(
    point,
    fc.double({ min: 5, max: 100, noNaN: true }),
    fc.double({ min: 5, max: 100, noNaN: true }),
  )
  .map(([{ x, y }, w, h]) => ({ x0: x, y0: y, x1: x + w, y1: y + h }));

const now = '2026-09-01T08:00:00.000Z';
const ink = (points: readonly Point[], change: Partial<Ink> = {}): Ink => ({
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
  width: 2,
  smoothing: 0,
  samples: samplesToBase64(
    samplesOf(points.map((p, i) => ({ ...p, pressure: 0.5, tiltX: 0, tiltY: 0, time: i * 8 }))),
  ),
  ...change,
});
const outlinesOf = (annotation: Annotation) => paint(annotation, 'whole').flatMap(coveredBy);

// The npm package transformation-matrix (C. Masson and others) as the reference.
test('turning and enlarging are those of a kept matrix library', () => {
  fc.assert(
    fc.property(point, point, number, number, (about, p, degrees, factor) => {
      const ours = transform(turning(about, degrees), p);
      const theirs = applyToPoint(rotateDEG(degrees, about.x, about.y), p);
      expect(distance(ours, theirs as Point)).toBeLessThan(1e-6);
      const grown = transform(scaling(about, factor, 2), p);
      const reference = applyToPoint(composed(scaled(factor, 2, about.x, about.y)), p);
      expect(distance(grown, reference as Point)).toBeLessThan(1e-6);
    }),
  );
});

test('four right angles are none, exactly', () => {
  const quarter = turning({ x: 12.3, y: -4.5 }, 90);
  const whole = [1, 2, 3].reduce((m) => compose(m, quarter), quarter);
  whole.forEach((value, i) => expect(value).toBeCloseTo(identity[i], 12));
});

test('whatever grip is dragged, what it holds follows it and what lies opposite stays', () => {
  const sides = fc.constantFrom<FramePart>(...frameParts.slice(2));
  fc.assert(
    fc.property(frame, sides, fc.double({ min: 2, max: 80, noNaN: true }), (box, grip, by) => {
      const at = (g: FramePart): Point => ({
        x: g.includes('w') ? box.x0 : g.includes('e') ? box.x1 : (box.x0 + box.x1) / 2,
        y: g.startsWith('n') ? box.y0 : g.startsWith('s') ? box.y1 : (box.y0 + box.y1) / 2,
      });
      const opposite = { nw: 'se', n: 's', ne: 'sw', e: 'w', se: 'nw', s: 'n', sw: 'ne', w: 'e' };
      const fixed = at(opposite[grip as keyof typeof opposite] as FramePart);
      const from = at(grip);
      const way = distance(fixed, from);
      const to = {
        x: from.x + ((from.x - fixed.x) * by) / way,
        y: from.y + ((from.y - fixed.y) * by) / way,
      };
      const m = gripMatrix(box, grip, from, to);
      expect(distance(transform(m, fixed), fixed)).toBeLessThan(1e-6);
      expect(distance(transform(m, from), to)).toBeLessThan(1e-6);
    }),
  );
});

test('turning snaps within ten degrees of a right angle, and nowhere else', () => {
  const box = { x0: -10, y0: -10, x1: 10, y1: 10 };
  const turnBy = (degrees: number): number => {
    const to = transform(turning({ x: 0, y: 0 }, degrees), { x: 0, y: -30 });
    const [a, b] = gripMatrix(box, 'turn', { x: 0, y: -30 }, to);
    return (Math.atan2(b, a) * 180) / Math.PI;
  };
  expect(turnBy(83)).toBeCloseTo(90);
  expect(turnBy(97)).toBeCloseTo(90);
  expect(turnBy(79)).toBeCloseTo(79);
  expect(turnBy(45)).toBeCloseTo(45);
  expect(turnBy(-6)).toBeCloseTo(0);
});

test('ink that is enlarged and turned a hundred times and back is the ink it was', () => {
  const before = ink([
    { x: 10, y: 20 },
    { x: 40, y: 26 },
    { x: 90, y: 12 },
  ]);
  let now: Annotation = before;
  const steps = Array.from({ length: 100 }, (_, i) =>
    compose(
      turning({ x: 30, y: 30 }, 7 + i),
      scaling({ x: 5, y: 80 }, 1.03, i % 2 === 0 ? 0.96 : 1.05),
    ),
  );
  for (const m of steps) now = changed(now, transformedFields(now, m)!);
  expect((now as Ink).samples).toBe(before.samples);
  for (const m of [...steps].reverse()) now = changed(now, transformedFields(now, inverse(m))!);
  const [was, is] = [outlinesOf(before)[0], outlinesOf(now)[0]];
  for (let i = 0; i < was.length; i++) expect(is[i]).toBeCloseTo(was[i], 6);
});

test('ink with its map worked in has the centre line and the width it is shown with', () => {
  const map = compose(turning({ x: 0, y: 0 }, 30), scaling({ x: 0, y: 0 }, 2, 2));
  const moved = ink(
    [
      { x: 10, y: 20 },
      { x: 40, y: 26 },
      { x: 90, y: 12 },
    ],
    { transform: [...map] },
  );
  const baked = bakedInk(moved);
  expect(baked.transform).toBeUndefined();
  expect(baked.width).toBeCloseTo(4);
  const shown = trackOf(moved, samplesFromBase64(moved.samples)).map((p) => transform(map, p));
  const { x, y, length } = samplesFromBase64(baked.samples);
  expect(length).toBe(shown.length);
  shown.forEach((p, i) => expect(Math.hypot(p.x - x[i], p.y - y[i])).toBeLessThan(0.01));
  expect(areaOf(outlinesOf(baked)[0]) / areaOf(outlinesOf(moved)[0])).toBeCloseTo(1, 2);
});

const ring = (count: number): fc.Arbitrary<[number, number][]> =>
  fc
    .array(fc.double({ min: 8, max: 60, noNaN: true }), { minLength: count, maxLength: count })
    .map((radii) =>
      radii.map((r, i): [number, number] => [
        50 + r * Math.cos((i / count) * 2 * Math.PI),
        50 + r * Math.sin((i / count) * 2 * Math.PI),
      ]),
    );

// d3-polygon (M. Bostock) tells points inside by ray casting, which for rings that do not cross
// themselves is the nonzero rule as well.
test('what lies in a lasso is what d3-polygon finds in it', () => {
  fc.assert(
    fc.property(ring(12), fc.array(point, { minLength: 1, maxLength: 30 }), (region, points) => {
      fc.pre(Math.abs(polygonArea(region)) > 1);
      const polygon = Float64Array.from(points.flatMap(({ x, y }) => [x, y]));
      const inside = points.filter(({ x, y }) => polygonContains(region, [x, y])).length;
      expect(shareInside([polygon], Float64Array.from(region.flat()))).toBeCloseTo(
        inside / points.length,
      );
    }),
  );
});

// polygon-clipping (M. Fogel): what a lasso touches shares an area with it.
test('what a lasso touches is what a clipping library says overlaps it', () => {
  const dots = fc.array(point, { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(ring(9), dots, (region, places) => {
      const strokes = places.map(({ x, y }) =>
        ink([
          { x, y },
          { x: x + 15, y: y + 9 },
        ]),
      );
      const outline = Float64Array.from(region.flat());
      const found = enclosedBy(outline, strokes, { outlinesOf, takes: 'touched' });
      const expected = strokes.filter((stroke) => {
        const ringOf = (polygon: Float64Array): [number, number][] =>
          Array.from({ length: polygon.length / 2 }, (_, i) => [
            polygon[2 * i],
            polygon[2 * i + 1],
          ]);
        return polygonClipping.intersection([region], [ringOf(outlinesOf(stroke)[0])]).length > 0;
      });
      expect(found.map(({ id }) => id)).toEqual(expected.map(({ id }) => id));
    }),
    { numRuns: 60 },
  );
});

test('orders put the chosen ones where they are to go, among each other as they were', () => {
  const page = [0, 1, 2, 3, 4].map((i) => ink([{ x: 0, y: 0 }], { order: `a${i}` }));
  const chosen = new Set([page[1].id, page[2].id]);
  const after = (to: Parameters<typeof reordered>[2]): number[] => {
    const orders = reordered(page, chosen, to);
    const all = page.map((a) => ({ ...a, ...orders.get(a.id) }));
    const sorted = paintingOrder(Object.fromEntries(all.map((a) => [a.id, a])));
    return sorted.map(({ id }) => page.findIndex((a) => a.id === id));
  };
  expect(after('front')).toEqual([0, 3, 4, 1, 2]);
  expect(after('back')).toEqual([1, 2, 0, 3, 4]);
  expect(after('forward')).toEqual([0, 3, 1, 2, 4]);
  expect(after('backward')).toEqual([1, 2, 0, 3, 4]);
  expect(reordered(page, new Set([page[4].id]), 'front').size).toBe(0);
});

test('copies are new things above the others, grouped among themselves, without what cannot be copied', () => {
  const group = newId();
  const [a, b] = [0, 1].map((i) => ink([{ x: i, y: i }], { group, order: `a${i}`, locked: true }));
  const foreign = { ...a, kind: 'foreign', subtype: 'Stamp' } as unknown as Annotation;
  const place = { pageId: newId(), above: 'a7', matrix: [1, 0, 0, 1, 5, 6] as const };
  const copies = copiesOf([a, b, foreign], place);
  expect(copies).toHaveLength(2);
  expect(new Set(copies.map((c) => c.group)).size).toBe(1);
  expect(copies[0].group).not.toBe(group);
  for (const copy of copies) {
    expect(copy.pageId).toBe(place.pageId);
    expect(copy.order > 'a7').toBe(true);
    expect(copy.locked).toBeUndefined();
    expect((copy as Ink).transform).toEqual([1, 0, 0, 1, 5, 6]);
  }
});
