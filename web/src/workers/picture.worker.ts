/// <reference lib="webworker" />
import { isPictureOfPixels } from '@stylet/core/pictures';
import { Answering } from './answering';
import { digestOf } from './digest';
import type { PictureRequests } from './protocol';

new Answering<PictureRequests>({ read, decode, draw });

async function read({ file }: { file: Blob }): Promise<PictureRequests['read']['result']> {
  const decoding = createImageBitmap(file).catch(() => undefined);
  const bytes = await file.arrayBuffer();
  if (!isPictureOfPixels(new Uint8Array(bytes, 0, Math.min(16, bytes.byteLength))))
    return undefined;
  const [bitmap, digest] = await Promise.all([decoding, digestOf(bytes)]);
  return bitmap && { digest, bitmap };
}

async function decode({ file, width }: { file: Blob; width: number }): Promise<ImageBitmap> {
  const whole = await createImageBitmap(file);
  if (whole.width <= width) return whole;
  try {
    return await createImageBitmap(whole, { resizeWidth: width, resizeQuality: 'high' });
  } finally {
    whole.close();
  }
}

/** pdf.js is large; most pictures do without. */
async function draw({ file, width }: { file: Blob; width: number }): Promise<ImageBitmap> {
  const { drawFirstPage } = await import('./picture-page');
  return drawFirstPage(file, width);
}
