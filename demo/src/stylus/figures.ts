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
