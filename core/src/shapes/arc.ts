import { distance, type Point } from '../geometry/index';

/** How far the chords of an arc may lie from it, in points. */
const FLATNESS = 0.005;
/** Chords of a whole turn, at most. */
const MOST = 720;

/** Where on a straight or bent side its middle is. `bend` as in `Shape`. */
export function middleOf(from: Point, to: Point, bend: number): Point {
  const length = distance(from, to);
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  if (length === 0) return middle;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  return { x: middle.x - uy * bend, y: middle.y + ux * bend };
}

/** The bend of a side whose middle is drawn towards a point. */
export function bendTowards(from: Point, to: Point, at: Point): number {
  const length = distance(from, to);
  if (length === 0) return 0;
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  return ux * (at.y - (from.y + to.y) / 2) - uy * (at.x - (from.x + to.x) / 2);
}

/**
 * The points of a bent side after `from`, up to and with `to`. With chord c and sagitta s the
 * circle's radius is (c² / 4 + s²) / 2s and the arc's angle 4 atan (2s / c): the theorem of
 * intersecting chords.
 */
export function arcPoints(from: Point, to: Point, bend: number): Point[] {
  const chord = distance(from, to);
  if (chord === 0 || Math.abs(bend) < FLATNESS) return [to];
  const radius = (chord * chord) / 4 / (2 * bend) + bend / 2;
  const angle = 4 * Math.atan((2 * bend) / chord);
  const top = middleOf(from, to, bend);
  const [nx, ny] = [-(to.y - from.y) / chord, (to.x - from.x) / chord];
  const centre = { x: top.x - nx * radius, y: top.y - ny * radius };
  const count = chordsFor(Math.abs(radius), Math.abs(angle));
  return Array.from({ length: count }, (_, i) => {
    if (i + 1 === count) return to;
    const turn = -(angle * (i + 1)) / count;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const [x, y] = [from.x - centre.x, from.y - centre.y];
    return { x: centre.x + x * c - y * s, y: centre.y + x * s + y * c };
  });
}

/** A whole ellipse from the end of its first half axis round to it again. */
export function ellipsePoints(centre: Point, a: Point, b: Point): Point[] {
  const count = chordsFor(Math.max(Math.hypot(a.x, a.y), Math.hypot(b.x, b.y)), 2 * Math.PI);
  return Array.from({ length: count + 1 }, (_, i) => {
    const t = i === count ? 0 : (2 * Math.PI * i) / count;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    return { x: centre.x + a.x * c + b.x * s, y: centre.y + a.y * c + b.y * s };
  });
}

function chordsFor(radius: number, angle: number): number {
  const step = 2 * Math.acos(Math.max(0, 1 - FLATNESS / Math.max(radius, FLATNESS)));
  return Math.min(MOST, Math.max(4, Math.ceil(angle / step)));
}
