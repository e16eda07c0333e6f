import { distance, type Point } from '../geometry/index';
import type { Shape } from './shape';

/** Directions this near to level or upright, in radians, are meant to be: 3°, and 8° for boxes. */
const LEVEL = 0.052;
const BOX_LEVEL = 0.14;
/** How far from right the angles of what is meant as a rectangle may be: 16°. */
const RIGHT_ANGLE = 0.28;
/** Sides whose lengths differ by less than this share are meant to be alike. */
const ALIKE = 0.08;

/** A recognised shape as it was meant: level where it is nearly so, rectangles with right angles. */
export function regular(shape: Shape): Shape {
  switch (shape.form) {
    case 'line':
    case 'arrow':
      return { ...shape, points: levelled(shape.points[0], shape.points[1]) };
    case 'ellipse':
      return levelEllipse(shape);
    case 'polygon':
      return shape.points.length === 4 ? (rectangleFrom(shape.points) ?? shape) : shape;
    case 'rectangle':
    case 'triangle':
    case 'circle':
      return shape;
  }
}

/** The nearest direction that is level or upright, if it is near. */
function snapped(angle: number, within: number): number {
  const nearest = (Math.round(angle / (Math.PI / 2)) * Math.PI) / 2;
  return Math.abs(angle - nearest) < within ? nearest : angle;
}

/** The start stays, and so does the length. */
export function levelled(from: Point, to: Point, within = LEVEL): [Point, Point] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const level = snapped(angle, within);
  if (level === angle) return [from, to];
  const length = distance(from, to);
  return [from, at(from, level, length)];
}

function levelEllipse({ points: [centre, a, b] }: Shape): Shape {
  const turn = snapped(Math.atan2(a.y - centre.y, a.x - centre.x), BOX_LEVEL);
  const [long, short] = [distance(centre, a), distance(centre, b)];
  return {
    form: 'ellipse',
    points: [centre, at(centre, turn, long), at(centre, turn + Math.PI / 2, short)],
  };
}

function rectangleFrom(corners: readonly Point[]): Shape | undefined {
  const sides = corners.map((p, i) => {
    const q = corners[(i + 1) % 4];
    return { length: distance(p, q), angle: Math.atan2(q.y - p.y, q.x - p.x) };
  });
  const isRight = sides.every(({ angle }, i) => {
    const turn = Math.abs(wrapped(sides[(i + 1) % 4].angle - angle));
    return Math.abs(turn - Math.PI / 2) < RIGHT_ANGLE;
  });
  if (!isRight) return undefined;
  // The direction all sides agree on best: their angles count by length and modulo a right angle.
  let [c, s] = [0, 0];
  for (const { length, angle } of sides) {
    c += length * Math.cos(4 * angle);
    s += length * Math.sin(4 * angle);
  }
  const turn = snapped(Math.atan2(s, c) / 4, BOX_LEVEL);
  const centre = {
    x: corners.reduce((sum, p) => sum + p.x, 0) / 4,
    y: corners.reduce((sum, p) => sum + p.y, 0) / 4,
  };
  // The first side may run along this direction or across it.
  const isAlong = Math.abs(Math.cos(sides[0].angle - turn)) > Math.SQRT1_2;
  const [along, across] = isAlong ? [0, 1] : [1, 0];
  let width = (sides[along].length + sides[along + 2].length) / 2;
  let height = (sides[across].length + sides[across + 2].length) / 2;
  if (Math.abs(width - height) < ALIKE * Math.max(width, height))
    width = height = (width + height) / 2;
  const corner = (x: number, y: number): Point => {
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const [dx, dy] = [(x * width) / 2, (y * height) / 2];
    return { x: centre.x + dx * cos - dy * sin, y: centre.y + dx * sin + dy * cos };
  };
  return {
    form: 'rectangle',
    points: [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)],
  };
}

const at = (from: Point, angle: number, length: number): Point => ({
  x: from.x + length * Math.cos(angle),
  y: from.y + length * Math.sin(angle),
});

const wrapped = (angle: number): number => Math.atan2(Math.sin(angle), Math.cos(angle));
