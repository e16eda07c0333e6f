import polygonClipping, { type MultiPolygon, type Ring } from 'polygon-clipping';
import { quantise, samplesOf, type Sample } from './samples';
import { strokePieces, Stroke } from './stroke';
import type { StrokeStyle } from './style';
import { trackOf, type TrackPoint } from './track';
import type { Polygon } from './outline';

const style: StrokeStyle = { instrument: 'nib', width: 5, smoothing: 0.3, sensitivity: 0.9 };

/** Handwriting-like loops of several shapes. */
const strokes: Sample[][] = [0.4, 0.9, 1.7].map((turn, k) =>
  Array.from({ length: 70 }, (_, i) =>
    quantise({
      x: 40 + i * 0.9 + 14 * Math.sin(i * 0.21 * turn),
      y: 40 + 12 * Math.cos(i * 0.33 * turn + k),
      pressure: 0.5 + 0.45 * Math.sin(i / 6),
      tiltX: 0,
      tiltY: 0,
      time: i * 4,
    }),
  ),
);

/** The outer tangents' hull of two discs, as a ring of short sides. */
function hull(a: TrackPoint, b: TrackPoint): Ring {
  const SIDES = 96;
  const ring: Ring = [];
  for (let k = 0; k < SIDES; k++) {
    const angle = (2 * Math.PI * k) / SIDES;
    const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
    // The disc that reaches farther in this direction has this part of the hull.
    const far = [a, b].reduce((p, q) =>
      p.x * ux + p.y * uy + p.radius > q.x * ux + q.y * uy + q.radius ? p : q,
    );
    ring.push([far.x + far.radius * ux, far.y + far.radius * uy]);
  }
  return [...ring, ring[0]];
}

const areaOfRing = (ring: Ring): number =>
  ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length];
    return sum + (x * ny - nx * y) / 2;
  }, 0);
const areaOfShape = (shape: MultiPolygon): number =>
  shape.reduce(
    (sum, [outer, ...holes]) =>
      sum +
      Math.abs(areaOfRing(outer)) -
      holes.reduce((inner, hole) => inner + Math.abs(areaOfRing(hole)), 0),
    0,
  );

/** Area inside any of the polygons by the nonzero rule, by cuts along lines of constant y. */
function areaInside(polygons: readonly Polygon[]): number {
  const STEP = 0.02;
  const ys = polygons.flatMap((polygon) => [...polygon].filter((_, i) => i % 2 === 1));
  let area = 0;
  for (let y = Math.min(...ys) + STEP / 2; y < Math.max(...ys); y += STEP) {
    const spans = polygons.flatMap((polygon) => spansAt(polygon, y)).sort((a, b) => a[0] - b[0]);
    let end = -Infinity;
    for (const [from, to] of spans) {
      area += Math.max(0, to - Math.max(from, end)) * STEP;
      end = Math.max(end, to);
    }
  }
  return area;
}

function spansAt(polygon: Polygon, y: number): [number, number][] {
  const crossings: { x: number; turn: number }[] = [];
  for (let i = 0; i < polygon.length; i += 2) {
    const j = (i + 2) % polygon.length;
    const [ay, by] = [polygon[i + 1], polygon[j + 1]];
    if (ay <= y === by <= y) continue;
    const x = polygon[i] + ((y - ay) / (by - ay)) * (polygon[j] - polygon[i]);
    crossings.push({ x, turn: by > ay ? 1 : -1 });
  }
  crossings.sort((a, b) => a.x - b.x);
  const spans: [number, number][] = [];
  let winding = 0;
  crossings.forEach(({ x, turn }, k) => {
    if (winding !== 0) spans.push([crossings[k - 1].x, x]);
    winding += turn;
  });
  return spans;
}

// polygon-clipping (the Martinez–Rueda–Feito algorithm) unites the hulls of each two discs that
// follow one another: what a disc of changing radius sweeps.
test.each(strokes.map((samples, i) => [i, samples] as const))(
  'the outline of stroke %d has the area of the swept discs united by polygon-clipping',
  (_, samples) => {
    const ink = samplesOf(samples);
    const track = trackOf(style, ink);
    const hulls = track.slice(1).map((point, i): [Ring] => [hull(track[i], point)]);
    const swept = areaOfShape(polygonClipping.union(hulls[0], ...hulls.slice(1)));
    const ours = areaInside(strokePieces(style, ink).map(({ polygon }) => polygon));
    expect(ours / swept).toBeGreaterThan(0.99);
    expect(ours / swept).toBeLessThan(1.01);
    const stroke = new Stroke(style);
    for (const sample of samples) stroke.add(sample);
    const whole = areaInside(stroke.outline().map(({ polygon }) => polygon));
    expect(whole / swept).toBeGreaterThan(0.99);
    expect(whole / swept).toBeLessThan(1.01);
  },
);

test('what is shown ahead of the pen is drawn, and never stays', () => {
  const [samples] = strokes;
  const plain = new Stroke(style);
  const guessed = new Stroke(style);
  samples.forEach((sample, i) => {
    plain.add(sample);
    guessed.add(sample);
    const ahead = [{ ...sample, x: sample.x + 9, y: sample.y - 4 }];
    const shown = guessed.tail(ahead);
    if (i > 3)
      expect(areaInside([shown[0].polygon])).toBeGreaterThan(areaInside([plain.tail()[0].polygon]));
  });
  expect(guessed.all()).toEqual(plain.all());
});
