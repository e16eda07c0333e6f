import { distance, type Point } from '../geometry/index';
import { turnBetween } from './corners';
import { regular } from './regular';
import { lengthOf } from './resample';
import type { Shape } from './shape';

/** Share of the greatest distance from the start at which a shaft may end. */
const NEARLY = 0.93;
/** How far a shaft may stray from straight, as a share of its length. */
const STRAYS = 0.06;
/** A head's reach back from the tip, as shares of the shaft. */
const HEAD = { least: 0.06, most: 0.6 } as const;
/** A head's way, as shares of the shaft. */
const HEAD_WAY = { least: 0.15, most: 2.2 } as const;
/** Between a barb and the shaft, in radians. */
const BARB = { least: 0.15, most: 1.35 } as const;

/** An arrow drawn in one stroke, shaft first or head first; the way at equal distances. */
export function arrowIn(way: readonly Point[]): Shape | undefined {
  return shaftFirst(way) ?? shaftFirst([...way].reverse());
}

function shaftFirst(way: readonly Point[]): Shape | undefined {
  const start = way[0];
  // The tip is as far from the start as the way goes, before it turns back for the first time.
  const far = Math.max(...way.map((p) => distance(p, start)));
  let tip = way.findIndex((p) => distance(p, start) > NEARLY * far);
  while (tip + 1 < way.length && distance(way[tip + 1], start) > distance(way[tip], start)) tip++;
  const shaft = distance(start, way[tip]);
  if (tip < way.length / 4 || lengthOf(way.slice(0, tip + 1)) > 1.12 * shaft) return undefined;
  const u = { x: (way[tip].x - start.x) / shaft, y: (way[tip].y - start.y) / shaft };
  const across = (p: Point): number => u.x * (p.y - start.y) - u.y * (p.x - start.x);
  const back = (p: Point): number => shaft - (u.x * (p.x - start.x) + u.y * (p.y - start.y));
  if (way.slice(0, tip + 1).some((p) => Math.abs(across(p)) > STRAYS * shaft)) return undefined;
  const head = way.slice(tip);
  const wayOfHead = lengthOf(head);
  if (wayOfHead < HEAD_WAY.least * shaft || wayOfHead > HEAD_WAY.most * shaft) return undefined;
  if (head.some((p) => back(p) > HEAD.most * shaft)) return undefined;
  const barbs = [1, -1].map((side) =>
    head.reduce((far, p) => (side * across(p) > side * across(far) ? p : far), way[tip]),
  );
  const isHead = barbs.every((barb) => {
    const reach = distance(barb, way[tip]);
    const angle = Math.abs(
      turnBetween({ x: barb.x - way[tip].x, y: barb.y - way[tip].y }, { x: -u.x, y: -u.y }),
    );
    return reach > HEAD.least * shaft && angle > BARB.least && angle < BARB.most;
  });
  return isHead ? regular({ form: 'arrow', points: [start, way[tip]] }) : undefined;
}
