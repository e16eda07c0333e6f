import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { ssim } from 'ssim.js';

/** A part of a picture, in pixels. */
export interface Part {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** How many times as fine as it is compared poppler draws: so its edges are of coverage, as those of canvases are. */
const FINER = 8;

/** A part of the first page of an export as poppler draws it; `part` in pixels of which there are `scale` to a point. */
export function byPoppler(pdf: Uint8Array, scale: number, part: Part): PNG {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-pixels-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const [x, y, width, height] = [part.x, part.y, part.width, part.height].map((value) =>
      String(Math.round(value * FINER)),
    );
    const how = ['-png', '-singlefile', '-cropbox', '-r', String(72 * scale * FINER)];
    const where = ['-x', x, '-y', y, '-W', width, '-H', height];
    execFileSync('pdftoppm', [...how, ...where, join(folder, 'a.pdf'), join(folder, 'a')]);
    return coarser(PNG.sync.read(readFileSync(join(folder, 'a.png'))), part);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** A picture with `FINER` times fewer pixels each way, each the mean of those it was. */
function coarser({ data, width: across }: PNG, { width, height }: Part): PNG {
  const less = new PNG({ width, height });
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let k = 0; k < 4; k++) {
        let sum = 0;
        for (let dy = 0; dy < FINER; dy++)
          for (let dx = 0; dx < FINER; dx++)
            sum += data[4 * ((y * FINER + dy) * across + x * FINER + dx) + k];
        less.data[4 * (y * width + x) + k] = sum / FINER ** 2;
      }
  return less;
}

/** How much alike two pictures are (Z. Wang and others, Image quality assessment: from error visibility to structural similarity, 2004). */
export const likeness = (one: PNG, other: PNG): number => {
  const of = ({ data, width, height }: PNG) => ({
    data: new Uint8ClampedArray(data),
    width,
    height,
  });
  return ssim(of(one) as never, of(other) as never).mssim;
};
