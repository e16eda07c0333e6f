import { distance, type Matrix, type Point } from '../geometry/index';
import { levelled } from './regular';
import { centreOf, isClosed, transformShape, type Shape } from './shape';

/** A shape is turned only by more than this, in radians: 6°. */
const TURNS = 0.105;

/**
 * A recognised shape while the pen that drew it is still down and has gone from one point to
 * another: the end of a line follows the pen, other shapes grow and turn with it about their middle.
 */
export function adjusted(shape: Shape, from: Point, to: Point): Shape {
  if (!isClosed(shape)) {
    const [start, end] = shape.points;
    const moved = { x: end.x + to.x - from.x, y: end.y + to.y - from.y };
    return { ...shape, points: levelled(start, moved) };
  }
  const centre = centreOf(shape);
  const before = distance(centre, from);
  if (before === 0) return shape;
  const scale = Math.max(0.05, distance(centre, to) / before);
  const angle =
    Math.atan2(to.y - centre.y, to.x - centre.x) - Math.atan2(from.y - centre.y, from.x - centre.x);
  const turn = Math.atan2(Math.sin(angle), Math.cos(angle));
  return transformShape(shape, about(centre, scale, Math.abs(turn) < TURNS ? 0 : turn));
}

/** Enlarging and turning (radians, clockwise as seen) about a point. */
export function about({ x, y }: Point, scale: number, turn: number): Matrix {
  const [c, s] = [scale * Math.cos(turn), scale * Math.sin(turn)];
  return [c, s, -s, c, x - c * x + s * y, y - s * x - c * y];
}
