import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { MINIATURE, TRAY_SIDE, miniatureBox } from '@stylet/core/miniatures';
import { Problem } from '@stylet/core/problems';
import sharp from 'sharp';
import { run } from '../work/programs';

/** Pages are drawn so many times as large and made smaller then: letters of a pixel would be a grey of their own. */
const LARGER = 2;
const QUALITY = 60;

/** A file's pages from `first` on, `count` of them, all of one tray. */
export interface Wanted {
  readonly path: string;
  readonly first: number;
  readonly count: number;
  /** An empty folder's path, for what is drawn on the way. */
  readonly folder: string;
}

/**
 * Draws a tray of miniatures, without what people mark on pages: the client draws that over them. A page that cannot
 * be drawn stays white. Returns a WebP picture. Throws Problem `tool-failed` when the file cannot be read.
 */
export async function drawTray({ path, first, count, folder }: Wanted): Promise<Buffer> {
  await mkdir(folder);
  try {
    const [last, size] = [first + count, LARGER * MINIATURE];
    const range = ['-f', `${first + 1}`, '-l', `${last}`];
    const how = ['-png', '-cropbox', '-hide-annotations', '-scale-to', `${size}`];
    const [drawn, rotations] = await Promise.all([
      run('pdftoppm', [...range, ...how, path, join(folder, 'page')], { isPatient: true }),
      rotationsOf(path, first, last),
    ]);
    if (drawn.code !== 0)
      throw new Problem('tool-failed', `pdftoppm: ${drawn.errors.slice(0, 300)}`);
    const names = await readdir(folder);
    const pictures = await Promise.all(
      names.map((name) => {
        const index = Number(/-(\d+)\.png$/.exec(name)![1]) - 1;
        return miniature(join(folder, name), index, rotations.get(index) ?? 0);
      }),
    );
    const side = TRAY_SIDE * MINIATURE;
    const tray = { width: side, height: side, channels: 3, background: '#fff' } as const;
    return await sharp({ create: tray }).composite(pictures).webp({ quality: QUALITY }).toBuffer();
  } finally {
    await rm(folder, { recursive: true });
  }
}

/** A page's picture as it lies on the tray: as the page is before it is turned. */
async function miniature(path: string, index: number, rotation: number) {
  const drawn = await sharp(path).metadata();
  const isUpright = rotation % 180 === 0;
  const { x0, y0, x1, y1 } = miniatureBox(index, {
    width: isUpright ? drawn.width : drawn.height,
    height: isUpright ? drawn.height : drawn.width,
  });
  const input = await sharp(path)
    .rotate((360 - rotation) % 360)
    .resize(x1 - x0, y1 - y0, { fit: 'fill' })
    .toBuffer();
  return { input, left: x0, top: y0 };
}

/** By how much pages of a file are turned, in degrees, by their places; counted from `first` to before `last`. */
async function rotationsOf(
  path: string,
  first: number,
  last: number,
): Promise<Map<number, number>> {
  const { code, output, errors } = await run('pdfinfo', [
    '-f',
    `${first + 1}`,
    '-l',
    `${last}`,
    path,
  ]);
  if (code !== 0) throw new Problem('tool-failed', `pdfinfo: ${errors.slice(0, 300)}`);
  const lines = output.matchAll(/^Page\s+(\d+) rot:\s+(\d+)$/gm);
  return new Map([...lines].map(([, page, degrees]) => [Number(page) - 1, Number(degrees)]));
}
