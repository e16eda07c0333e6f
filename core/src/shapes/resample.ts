import { distance, type Point } from '../geometry/index';

/** Length of a way through points, in points. */
export function lengthOf(way: readonly Point[]): number {
  let length = 0;
  for (let i = 1; i < way.length; i++) length += distance(way[i - 1], way[i]);
  return length;
}

/** `count` points at equal distances along a way, its two ends among them. */
export function resampled(way: readonly Point[], count: number): Point[] {
  const step = lengthOf(way) / (count - 1);
  const points: Point[] = [way[0]];
  let along = 0;
  let next = step;
  for (let i = 1; i < way.length && points.length < count - 1; i++) {
    const [a, b] = [way[i - 1], way[i]];
    const length = distance(a, b);
    while (length > 0 && along + length >= next && points.length < count - 1) {
      const t = (next - along) / length;
      points.push({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
      next += step;
    }
    along += length;
  }
  while (points.length < count) points.push(way[way.length - 1]);
  return points;
}
