import { samplesOf, type Sample } from './samples';
import { areaOf } from './outline';
import { strokePieces } from './stroke';
import { altitudeOf, radiusFor, toneFor, type StrokeStyle } from './style';
import { nibShape, reachOf } from './nib-shape';

const at = (x: number, y: number, change: Partial<Sample> = {}): Sample => ({
  x,
  y,
  pressure: 0.5,
  tiltX: 0,
  tiltY: 0,
  time: 0,
  ...change,
});
const style = (change: Partial<StrokeStyle> = {}): StrokeStyle => ({
  instrument: 'fineliner',
  width: 4,
  smoothing: 0,
  ...change,
});
const area = (ink: StrokeStyle, points: Sample[]): number =>
  strokePieces(ink, samplesOf(points)).reduce(
    (sum, { polygon }) => sum + Math.abs(areaOf(polygon)),
    0,
  );

// W3C Pointer Events 3, tilt to spherical angles: with one tilt the altitude is what that leaves of
// 90°, with both it is atan(1 / √(tan² tiltX + tan² tiltY)), and a tilt of 90° lies flat.
test.each([
  [0, 0, 90],
  [30, 0, 60],
  [0, -45, 45],
  [45, 45, (Math.atan(1 / Math.SQRT2) * 180) / Math.PI],
  [90, 0, 0],
  [12, -90, 0],
])('a pen tilted %d° and %d° stands at %d°', (tiltX, tiltY, altitude) => {
  expect(altitudeOf(at(0, 0, { tiltX, tiltY }))).toBeCloseTo(altitude, 9);
});

test('a nib is as sensitive to pressure as it is set to', () => {
  const range = (sensitivity: number): number[] =>
    [0, 0.5, 1].map((pressure) =>
      radiusFor(style({ instrument: 'nib', sensitivity }), at(0, 0, { pressure })),
    );
  expect(range(0)).toEqual([2, 2, 2]);
  expect(range(0.5)).toEqual([1, 2, 3]);
  expect(range(1)).toEqual([0.2, 2, 4]);
});

test('a pencil draws wider and lighter on its side, darker when pressed', () => {
  const pencil = style({ instrument: 'pencil' });
  const [tip, side] = [at(0, 0, { tiltX: 20 }), at(0, 0, { tiltX: 70 })];
  expect(radiusFor(pencil, side)).toBeCloseTo(6 * radiusFor(pencil, tip));
  expect(toneFor(pencil, side)).toBeLessThan(0.6 * toneFor(pencil, tip));
  const hard = at(0, 0, { pressure: 1 });
  expect(toneFor(pencil, hard)).toBeGreaterThan(toneFor(pencil, at(0, 0)));
});

// The width of an ellipse with semi-axes a and b across a direction at an angle φ to its long axis
// is 2 √(a² sin² φ + b² cos² φ), its support function; the area swept along a straight way is that
// width times the way, and the ellipse itself (Minkowski sum of a segment and a convex shape).
test.each([0, 30, 40, 90, 130, 175])('a broad edge at 40° drawn at %d°', (direction) => {
  const [a, b] = [5, 0.6];
  const radians = (degrees: number): number => (degrees * Math.PI) / 180;
  const phi = radians(direction - 40);
  const width = 2 * Math.hypot(a * Math.sin(phi), b * Math.cos(phi));
  const to = { x: 60 * Math.cos(radians(direction)), y: -60 * Math.sin(radians(direction)) };
  const broad = style({ instrument: 'broadEdge', width: 2 * a, angle: 40 });
  const drawn = area(broad, [at(0, 0), at(to.x, to.y, { time: 100 })]);
  expect(drawn / (width * 60 + Math.PI * a * b)).toBeCloseTo(1, 2);
  const across = { x: Math.sin(radians(direction)), y: Math.cos(radians(direction)) };
  expect(reachOf(nibShape(broad), a, across)).toBeCloseTo(width / 2, 9);
});

test('a wash that fills covers what its way encloses', () => {
  const ring = Array.from({ length: 73 }, (_, i) =>
    at(50 + 30 * Math.cos((i * Math.PI) / 36), 50 + 30 * Math.sin((i * Math.PI) / 36), {
      time: i * 8,
    }),
  );
  const wash = style({ instrument: 'wash' });
  const pieces = strokePieces({ ...wash, fills: true }, samplesOf(ring));
  expect(Math.abs(areaOf(pieces[pieces.length - 1].polygon))).toBeCloseTo(Math.PI * 900, -2);
  // What fills may turn against the stroke around it, so it never shares a path with it.
  expect(pieces[pieces.length - 1].isAlone).toBe(true);
  expect(strokePieces(wash, samplesOf(ring)).every(({ isAlone }) => !isAlone)).toBe(true);
});

test('free-form highlighters end flat or round', () => {
  const way = [at(0, 0), at(50, 0, { time: 50 }), at(100, 0, { time: 100 })];
  const free = style({ instrument: 'highlighter', width: 10, freeform: true });
  expect(area(free, way)).toBeCloseTo(1000, 6);
  expect(area({ ...free, end: 'round' }, way) - 1000).toBeCloseTo(Math.PI * 25, 0);
  const bar = style({ instrument: 'highlighter', width: 10, end: 'round' });
  expect(area(bar, way) - 1000).toBeCloseTo(Math.PI * 25, 0);
});

test('a highlighter that darkens is drawn in as many passes as it crosses itself', () => {
  const free = style({ instrument: 'highlighter', width: 6, freeform: true, darkens: true });
  const passes = (way: (t: number) => [number, number]): number =>
    strokePieces(
      free,
      samplesOf(Array.from({ length: 200 }, (_, i) => at(...way(i / 199), { time: i * 4 }))),
    ).length;
  expect(passes((t) => [t * 200, 20 * Math.sin(t * 9)])).toBe(1);
  // Over a loop, once.
  expect(passes((t) => [t * 60 + 40 * Math.sin(t * 6.3), 40 * Math.cos(t * 6.3)])).toBe(2);
  // To and fro over the same line, each time.
  const toAndFro = (t: number): [number, number] => [50 * Math.acos(Math.cos(t * 3 * Math.PI)), 0];
  expect(passes(toAndFro)).toBe(3);
});
