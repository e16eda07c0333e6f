import type { Box, Matrix, Point } from '../geometry/index';

/** What a frame round a selection is taken hold of by: itself, its turning grip, its corners and sides. */
export const frameParts = ['move', 'turn', 'nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w'] as const;
export type FramePart = (typeof frameParts)[number];

/** Angles this near to a right one, in degrees, are it. */
const NEAR_RIGHT = 10;
/** No drag makes a selection smaller than this share of what it was. */
const LEAST = 0.02;

/** Where a grip of a frame is, as shares of its width and height; undefined for moving and turning. */
export function gripAt(grip: FramePart): Point | undefined {
  if (grip === 'move' || grip === 'turn') return undefined;
  return {
    x: grip.includes('w') ? 0 : grip.includes('e') ? 1 : 0.5,
    y: grip.startsWith('n') ? 0 : grip.startsWith('s') ? 1 : 0.5,
  };
}

/**
 * The map by which a frame's contents follow a grip that is dragged from one point to another (all in
 * one space). Corners enlarge in proportion, sides one way; what lies opposite stays. Dragged over to
 * the other side they flip. Turning is about the middle and snaps only near right angles; what is in
 * the frame may be `turned` already by so many degrees.
 */
export function gripMatrix(
  frame: Box,
  grip: FramePart,
  from: Point,
  to: Point,
  turned = 0,
): Matrix {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (grip === 'move') return [1, 0, 0, 1, dx, dy];
  const middle = { x: (frame.x0 + frame.x1) / 2, y: (frame.y0 + frame.y1) / 2 };
  if (grip === 'turn') return turning(middle, snappedTurn(middle, from, to, turned));
  const share = gripAt(grip)!;
  const at = (s: Point): Point => ({
    x: frame.x0 + s.x * (frame.x1 - frame.x0),
    y: frame.y0 + s.y * (frame.y1 - frame.y0),
  });
  const [start, fixed] = [at(share), at({ x: 1 - share.x, y: 1 - share.y })];
  const [wx, wy] = [start.x - fixed.x, start.y - fixed.y];
  if (share.x !== 0.5 && share.y !== 0.5) {
    const scale = kept(((wx + dx) * wx + (wy + dy) * wy) / (wx * wx + wy * wy));
    return scaling(fixed, scale, scale);
  }
  return share.x === 0.5
    ? scaling(fixed, 1, kept((wy + dy) / wy))
    : scaling(fixed, kept((wx + dx) / wx), 1);
}

/** Enlarging by two factors about a point. */
export const scaling = ({ x, y }: Point, sx: number, sy: number): Matrix => [
  sx,
  0,
  0,
  sy,
  x - sx * x,
  y - sy * y,
];

/** Turning about a point by an angle in degrees, clockwise as seen where y grows downwards. */
export function turning({ x, y }: Point, degrees: number): Matrix {
  const quarter = ((degrees / 90) % 4) + 4;
  // Quarter turns are exact, so that four of them change nothing.
  const [c, s] = Number.isInteger(quarter)
    ? ([
        [1, 0],
        [0, 1],
        [-1, 0],
        [0, -1],
      ][quarter % 4] as [number, number])
    : [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [c, s, -s, c, x - c * x + s * y, y - s * x - c * y];
}

/** The angle in degrees a grip was turned by about a point. */
function snappedTurn(about: Point, from: Point, to: Point, turned: number): number {
  const angle =
    Math.atan2(to.y - about.y, to.x - about.x) - Math.atan2(from.y - about.y, from.x - about.x);
  const degrees = (angle * 180) / Math.PI;
  const nearest = Math.round((turned + degrees) / 90) * 90;
  return Math.abs(turned + degrees - nearest) < NEAR_RIGHT ? nearest - turned : degrees;
}

/** A factor that can be divided by again; a frame without width or height keeps that. */
function kept(scale: number): number {
  if (!Number.isFinite(scale)) return 1;
  return Math.abs(scale) < LEAST ? LEAST * (scale < 0 ? -1 : 1) : scale;
}
