import type { Point } from '@stylet/core/geometry';

/** A straight line. */
export const line = (from: Point, to: Point): Point[] => [from, to];

/** An arrow: the shaft in one path, the head in another. */
export function arrow(from: Point, to: Point, head = 9): Point[][] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const barb = (turn: number): Point => ({
    x: to.x - head * Math.cos(angle + turn),
    y: to.y - head * Math.sin(angle + turn),
  });
  return [
    [from, to],
    [barb(0.45), to, barb(-0.45)],
  ];
}

/** A closed curve round a box, overlapping a little as a hand does. */
export function ring(center: Point, rx: number, ry: number): Point[] {
  return Array.from({ length: 40 }, (_, i) => {
    const angle = -2 + (i / 36) * 2 * Math.PI;
    return { x: center.x + rx * Math.cos(angle), y: center.y + ry * Math.sin(angle) };
  });
}

/** A wavy line, growing steeper towards its end like shoaling waves. */
export function waves(from: Point, width: number, height: number, count: number): Point[] {
  const steps = count * 16;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const t = i / steps;
    return {
      x: from.x + width * t,
      y: from.y - Math.sin(t * count * 2 * Math.PI) * height * (0.4 + 0.6 * t),
    };
  });
}

/** The corners in turn, and back to where it began; `overshoot` points further along the first side. */
export function corners(points: readonly Point[], overshoot = 0): Point[] {
  const [first, second] = points;
  const way = Math.hypot(second.x - first.x, second.y - first.y);
  const t = overshoot / way;
  const end = { x: first.x + (second.x - first.x) * t, y: first.y + (second.y - first.y) * t };
  return overshoot > 0 ? [...points, first, end] : [...points, first];
}

/** The corners of a regular polygon. */
export function regularCorners(center: Point, radius: number, count: number, turn = 0): Point[] {
  return Array.from({ length: count }, (_, i) => {
    const angle = turn + (i / count) * 2 * Math.PI;
    return { x: center.x + radius * Math.cos(angle), y: center.y + radius * Math.sin(angle) };
  });
}

/** An arrow in one path: shaft, one barb, back over the tip, the other barb. */
export function arrowInOne(from: Point, to: Point, head: number): Point[] {
  const [shaft, barbs] = arrow(from, to, head);
  return [...shaft, barbs[0], barbs[1], barbs[2]];
}

/** There and back over an area, `passes` times, as a hand strikes something out or shades it. */
export function zigzag(from: Point, width: number, height: number, passes: number): Point[] {
  return Array.from({ length: passes + 1 }, (_, i) => ({
    x: from.x + (i % 2 === 0 ? 0 : width),
    y: from.y + (height * i) / passes,
  }));
}

/** A ring that winds inwards. */
export function spiral(center: Point, radius: number, turns: number): Point[] {
  const steps = Math.round(turns * 24);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = (i / 24) * 2 * Math.PI;
    const r = radius * (1 - (0.85 * i) / steps);
    return { x: center.x + r * Math.cos(angle), y: center.y + r * Math.sin(angle) };
  });
}

/** Loops that run on like written e's: how some people strike words out. */
export function coil(from: Point, width: number, height: number, loops: number): Point[] {
  const steps = loops * 18;
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = (i / 18) * 2 * Math.PI;
    return {
      x: from.x + (width * i) / steps + 0.6 * height * Math.sin(angle),
      y: from.y + (height / 2) * Math.cos(angle),
    };
  });
}

/** Points turned clockwise about a centre, by an angle in radians. */
export function turned(points: readonly Point[], center: Point, angle: number): Point[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return points.map(({ x, y }) => ({
    x: center.x + c * (x - center.x) - s * (y - center.y),
    y: center.y + s * (x - center.x) + c * (y - center.y),
  }));
}
