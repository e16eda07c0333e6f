import type { Box } from '../geometry/index';

/** A picture of a page: RGBA, 8 bits each, row by row. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray | Uint8Array;
}

/** Fainter than this nothing is seen, of 255. */
const FAINT = 12;
/** How far a colour may be from the paper's and still be paper, of 255 in each component. */
const PAPER_NOISE = 24;
/** Smaller specks than this, in pixels of both sides, are dust. */
const DUST = 3;

/**
 * The separate drawings on a page, as boxes in pixels, from top to bottom and left to right: what is drawn belongs together where
 * no more than `gap` pixels of paper lie between. Paper is what is clear, or of the colour of the corners where those are alike.
 * Components by joining runs of rows (Rosenfeld and Pfaltz 1966, in two passes).
 */
export function drawingsIn(raster: Raster, gap: number): Box[] {
  const { width, height } = raster;
  const isPaper = paperOf(raster);
  const step = Math.max(1, Math.floor(gap));
  const boxes: Box[] = [];
  const parents: number[] = [];
  const rootOf = (index: number): number => {
    let root = index;
    while (parents[root] !== root) root = parents[root];
    for (let i = index; parents[i] !== root;) [i, parents[i]] = [parents[i], root];
    return root;
  };
  let open: { x0: number; x1: number; y: number; of: number }[] = [];
  for (let y = 0; y < height; y++) {
    const runs = runsIn(y, width, step, isPaper);
    open = open.filter((run) => y - run.y <= step);
    const added = runs.map(({ x0, x1 }) => {
      const near = open.filter((run) => run.x0 <= x1 + step && run.x1 >= x0 - step);
      const roots = [...new Set(near.map(({ of }) => rootOf(of)))];
      const of = roots[0] ?? parents.length;
      if (roots.length === 0) {
        parents.push(of);
        boxes.push({ x0, y0: y, x1, y1: y + 1 });
      }
      for (const other of roots.slice(1)) {
        parents[other] = of;
        boxes[of] = around(boxes[of], boxes[other]);
      }
      boxes[of] = around(boxes[of], { x0, y0: y, x1, y1: y + 1 });
      return { x0, x1, y, of };
    });
    open.push(...added);
  }
  return boxes
    .filter((box, i) => parents[i] === i && (box.x1 - box.x0 >= DUST || box.y1 - box.y0 >= DUST))
    .sort((a, b) => a.y0 - b.y0 || a.x0 - b.x0);
}

const around = (a: Box, b: Box): Box => ({
  x0: Math.min(a.x0, b.x0),
  y0: Math.min(a.y0, b.y0),
  x1: Math.max(a.x1, b.x1),
  y1: Math.max(a.y1, b.y1),
});

/** What is drawn in a row, in runs with no more than `gap` pixels of paper within. */
function runsIn(
  y: number,
  width: number,
  gap: number,
  isPaper: (x: number, y: number) => boolean,
): { x0: number; x1: number }[] {
  const runs: { x0: number; x1: number }[] = [];
  for (let x = 0; x < width; x++) {
    if (isPaper(x, y)) continue;
    const last = runs.at(-1);
    if (last && x - last.x1 <= gap) last.x1 = x + 1;
    else runs.push({ x0: x, x1: x + 1 });
  }
  return runs;
}

function paperOf({ width, height, data }: Raster): (x: number, y: number) => boolean {
  const at = (x: number, y: number): number => 4 * (y * width + x);
  const corners = [at(0, 0), at(width - 1, 0), at(0, height - 1), at(width - 1, height - 1)];
  const [first] = corners;
  const isLike = (i: number, j: number): boolean =>
    [0, 1, 2, 3].every((k) => Math.abs(data[i + k] - data[j + k]) <= PAPER_NOISE);
  const isPapered = data[first + 3] > 255 - FAINT && corners.every((c) => isLike(c, first));
  return (x, y) => {
    const i = at(x, y);
    return data[i + 3] <= FAINT || (isPapered && isLike(i, first));
  };
}
