import type { Point } from '@stylet/core/geometry';

/**
 * The $1 recogniser: J. O. Wobbrock, A. D. Wilson, Y. Li, “Gestures without libraries, toolkits or
 * training”, UIST 2007, appendix A, step by step. Something to compare with, from outside.
 */
const COUNT = 64;
const SIZE = 250;
const PHI = 0.5 * (-1 + Math.sqrt(5));
const ANGLE = (45 * Math.PI) / 180;
const PRECISION = (2 * Math.PI) / 180;

export interface Template {
  readonly name: string;
  readonly points: readonly Point[];
}

export const templateOf = (name: string, points: readonly Point[]): Template => ({
  name,
  points: normalised(points),
});

/** The best template and its score, 0–1. */
export function recognise(
  points: readonly Point[],
  templates: readonly Template[],
): { name: string; score: number } {
  const candidate = normalised(points);
  let best = Infinity;
  let name = '';
  for (const template of templates) {
    const d = distanceAtBestAngle(candidate, template.points, -ANGLE, ANGLE);
    if (d < best) {
      best = d;
      name = template.name;
    }
  }
  return { name, score: 1 - best / (0.5 * Math.sqrt(2 * SIZE * SIZE)) };
}

function normalised(points: readonly Point[]): Point[] {
  const resampled = resample(points);
  const c = centroid(resampled);
  const turned = rotate(resampled, -Math.atan2(c.y - resampled[0].y, c.x - resampled[0].x));
  return toOrigin(scale(turned));
}

function resample(given: readonly Point[]): Point[] {
  const points = [...given];
  let length = 0;
  for (let i = 1; i < points.length; i++) length += gap(points[i - 1], points[i]);
  const interval = length / (COUNT - 1);
  const result = [points[0]];
  let along = 0;
  for (let i = 1; i < points.length; i++) {
    const d = gap(points[i - 1], points[i]);
    if (d > 0 && along + d >= interval) {
      const t = (interval - along) / d;
      const q = {
        x: points[i - 1].x + t * (points[i].x - points[i - 1].x),
        y: points[i - 1].y + t * (points[i].y - points[i - 1].y),
      };
      result.push(q);
      points.splice(i, 0, q);
      along = 0;
    } else along += d;
  }
  while (result.length < COUNT) result.push(points[points.length - 1]);
  return result.slice(0, COUNT);
}

function distanceAtBestAngle(
  points: readonly Point[],
  template: readonly Point[],
  from: number,
  to: number,
): number {
  let [a, b] = [from, to];
  let x1 = PHI * a + (1 - PHI) * b;
  let f1 = distanceAt(points, template, x1);
  let x2 = (1 - PHI) * a + PHI * b;
  let f2 = distanceAt(points, template, x2);
  while (Math.abs(b - a) > PRECISION) {
    if (f1 < f2) {
      b = x2;
      [x2, f2] = [x1, f1];
      x1 = PHI * a + (1 - PHI) * b;
      f1 = distanceAt(points, template, x1);
    } else {
      a = x1;
      [x1, f1] = [x2, f2];
      x2 = (1 - PHI) * a + PHI * b;
      f2 = distanceAt(points, template, x2);
    }
  }
  return Math.min(f1, f2);
}

function distanceAt(points: readonly Point[], template: readonly Point[], angle: number): number {
  const turned = rotate(points, angle);
  return turned.reduce((sum, p, i) => sum + gap(p, template[i]), 0) / turned.length;
}

function rotate(points: readonly Point[], angle: number): Point[] {
  const c = centroid(points);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return points.map((p) => ({
    x: (p.x - c.x) * cos - (p.y - c.y) * sin + c.x,
    y: (p.x - c.x) * sin + (p.y - c.y) * cos + c.y,
  }));
}

function scale(points: readonly Point[]): Point[] {
  const xs = points.map(({ x }) => x);
  const ys = points.map(({ y }) => y);
  const width = Math.max(...xs) - Math.min(...xs) || 1e-6;
  const height = Math.max(...ys) - Math.min(...ys) || 1e-6;
  return points.map(({ x, y }) => ({ x: (x * SIZE) / width, y: (y * SIZE) / height }));
}

function toOrigin(points: readonly Point[]): Point[] {
  const c = centroid(points);
  return points.map(({ x, y }) => ({ x: x - c.x, y: y - c.y }));
}

const centroid = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
  y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
});

const gap = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);
