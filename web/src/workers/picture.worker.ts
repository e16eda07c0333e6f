/// <reference lib="webworker" />
import { Answering } from './answering';
import type { PictureRequests } from './protocol';

new Answering<PictureRequests>({ read, decode, draw });

async function read({ file }: { file: Blob }): Promise<{ digest: string; bitmap: ImageBitmap }> {
  const [bitmap, digest] = await Promise.all([createImageBitmap(file), digestOf(file)]);
  return { digest, bitmap };
}

async function digestOf(file: Blob): Promise<string> {
  const hash = await crypto.subtle.digest('SHA-256', await file.arrayBuffer());
  return Array.from(new Uint8Array(hash), (byte) => byte.toString(16).padStart(2, '0')).join('');
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
