import { open } from 'node:fs/promises';
import type { PictureType } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { isTurned, type Orientation } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import sharp from 'sharp';
import { run } from '../work/programs';
import type { PdfPool } from '../pdf/pool';
import type { Spool } from '../sources/spool';
import type { SpooledFile } from '../sources/spooled-file';

/** What pictures may have of pixels: more would take a gigabyte to show. */
export const MOST_PIXELS = 100_000_000;
/** Drawings that take longer to read are made to take long; ms. */
const LONGEST_DRAWING = 20_000;
const RASTER = ['jpeg', 'png', 'webp'] as const;

/** What a picture's file turned out to be; size upright, in pixels or in points. */
export interface Inspected {
  readonly type: PictureType;
  readonly width: number;
  readonly height: number;
  readonly orientation: Orientation;
  /** The PDF of one page by which it is drawn, where it is not pixels. */
  readonly page?: SpooledFile;
}

/**
 * Reads the whole of a picture's file. Throws Problem `picture-unreadable` for what is broken or
 * something else, and `picture-too-many-pixels`.
 */
export async function inspect(file: SpooledFile, spool: Spool, pool: PdfPool): Promise<Inspected> {
  if (file.size === 0) throw new Problem('picture-unreadable', 'The file is empty.');
  const head = await firstBytes(file.path);
  if (head.startsWith('%PDF-'))
    return { ...(await pageFacts(file, spool, pool)), type: 'page', page: file };
  if (/^[^]{0,3000}<svg[\s>]/.test(head)) return inspectDrawing(file, spool, pool);
  return inspectPixels(file.path);
}

async function inspectPixels(path: string): Promise<Inspected> {
  try {
    const options = { limitInputPixels: MOST_PIXELS, failOn: 'error' } as const;
    const { format, width, height, orientation = 1 } = await sharp(path, options).metadata();
    const type = RASTER.find((known) => known === format);
    if (!type) throw new Problem('picture-unreadable', `It is a file of the kind “${format}”.`);
    // Decoded to the last pixel: a file cut off in the middle has good facts at its beginning.
    await sharp(path, options)
      .resize(16, 16, { fit: 'fill' })
      .raw()
      .timeout({ seconds: LONGEST_DRAWING / 1000 })
      .toBuffer();
    const turned = isTurned(orientation as Orientation);
    return {
      type,
      width: turned ? height : width,
      height: turned ? width : height,
      orientation: orientation as Orientation,
    };
  } catch (error) {
    if (error instanceof Problem) throw error;
    const reason = (error instanceof Error ? error.message : String(error)).split('\n')[0];
    if (reason.includes('pixel limit'))
      throw new Problem('picture-too-many-pixels', `The limit is ${MOST_PIXELS / 1e6} million.`);
    throw new Problem('picture-unreadable', `What was found: ${reason}.`);
  }
}

/** Drawings become pages of PDF; what they would fetch from elsewhere is not fetched. */
async function inspectDrawing(file: SpooledFile, spool: Spool, pool: PdfPool): Promise<Inspected> {
  const to = spool.workPath('.pdf');
  // Read from a pipe it has no address, and so nothing it names can be found.
  const { code, errors } = await run('rsvg-convert', ['--format=pdf', `--output=${to}`], {
    input: { path: file.path },
    longest: LONGEST_DRAWING,
  });
  if (code !== 0) {
    await spool.discard(to);
    const reason = errors.trim().split('\n')[0] || 'it takes too long to draw';
    throw new Problem('picture-unreadable', `What was found: ${reason.slice(0, 200)}.`);
  }
  const page = await spool.adopt(to);
  return { ...(await pageFacts(page, spool, pool)), type: 'svg', page };
}

async function pageFacts(
  { path }: SpooledFile,
  spool: Spool,
  pool: PdfPool,
): Promise<Pick<Inspected, 'width' | 'height' | 'orientation'>> {
  const read = await spool.withWork((work) =>
    pool.read({
      path,
      documentId: newId(),
      now: new Date().toISOString(),
      isMended: false,
      parts: work.workPath('.parts'),
      tidied: work.workPath('.pdf'),
    }),
  );
  const page = read.outcome === 'read' ? read.facts.firstPage : undefined;
  if (!page) throw new Problem('picture-unreadable', 'It has no page that can be read.');
  const turned = page.rotation % 180 !== 0;
  return {
    width: turned ? page.height : page.width,
    height: turned ? page.width : page.height,
    orientation: 1,
  };
}

async function firstBytes(path: string): Promise<string> {
  const handle = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    return buffer.toString('latin1', 0, bytesRead);
  } finally {
    await handle.close();
  }
}
