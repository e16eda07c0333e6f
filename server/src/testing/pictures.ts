import { newId, type Picture } from '@stylet/core/document';
import type { PictureFacts } from '@stylet/core/api';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';
import sharp from 'sharp';
import type { TestServer } from './server';

/** A picture without two equal quarters: which way up it is shows anywhere. RGB, row by row. */
export function pattern(width: number, height: number): Buffer {
  const bytes = Buffer.alloc(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = 3 * (y * width + x);
      bytes[i] = Math.round((255 * x) / width);
      bytes[i + 1] = Math.round((255 * y) / height);
      bytes[i + 2] = x < width / 2 === y < height / 3 ? 40 : 200;
    }
  return bytes;
}

/** The pattern as an image that sharp can write in any format. */
export const image = (width: number, height: number): sharp.Sharp =>
  sharp(pattern(width, height), { raw: { width, height, channels: 3 } });

export async function putIn(
  server: TestServer,
  bytes: Uint8Array,
  filename = 'Picture.png',
): Promise<PictureFacts> {
  const reply = await server.upload(bytes, filename, '/api/pictures');
  if (reply.statusCode !== 201) throw new Error(reply.body);
  return reply.json();
}

const NOW = '2026-09-01T08:00:00.123Z';

/** A picture on a page, level, in a box of page space. */
export function picture(
  pageId: string,
  facts: PictureFacts,
  [x, y, width, height]: readonly [number, number, number, number],
  change: Partial<Picture> = {},
): Picture {
  return {
    kind: 'picture',
    id: newId(),
    pageId,
    order: 'a3',
    opacity: 1,
    author: 'Reviewer',
    created: NOW,
    modified: NOW,
    contents: 'A pattern',
    transform: [width, 0, 0, height, x, y],
    ...facts,
    ...change,
  };
}

/** A PDF of blank pages, 400 by 300 points, whose visible box does not start at 0. */
export function blankPdf(count: number): Buffer {
  const pages = Array.from({ length: count }, (_, i) => `${i + 3} 0 R`);
  return Buffer.from(
    smallPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      `<< /Type /Pages /Kids [${pages.join(' ')}] /Count ${count} /MediaBox [10 20 410 320] >>`,
      ...pages.map(() => '<< /Type /Page /Parent 2 0 R >>'),
    ]),
  );
}
