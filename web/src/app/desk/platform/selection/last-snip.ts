import { Injectable } from '@angular/core';
import { z } from 'zod';
import { digestOf } from '../../../../workers/digest';
import { readKept } from '../../../settings/kept';
import { readyPictureSchema, type ReadyPicture } from '../pictures/recent-pictures';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.snip';

/** How long pasting waits for a snip that is being cut out, in ms. */
const LATEST = 5000;

const snipSchema = z.object({
  picture: readyPictureSchema,
  width: z.int(),
  height: z.int(),
  pixels: z.string(),
});

/**
 * The snip that went onto the clipboard last, in any window of this browser. The clipboard carries only
 * its pixels: by those it is known again, and put on pages as it was cut, drawn by lines and letters.
 */
@Injectable({ providedIn: 'root' })
export class LastSnip {
  private coming: Promise<unknown> | undefined;

  /** One is being cut out in this window: whoever pastes it meanwhile gets it as it was cut. */
  comes(kept: Promise<unknown>): void {
    // Failures are told where it is cut out.
    this.coming = kept.catch(() => undefined);
  }

  async keep(picture: ReadyPicture, canvas: HTMLCanvasElement): Promise<void> {
    const { width, height } = canvas;
    const pixels = await fingerprint(canvas);
    accountStorage.setItem(KEY, JSON.stringify({ picture, width, height, pixels }));
  }

  /** The snip a picture on the clipboard was made of, if it is the last one. */
  async recognise(file: Blob): Promise<ReadyPicture | undefined> {
    await Promise.race([this.coming, new Promise((late) => setTimeout(late, LATEST))]);
    const kept = snipSchema.safeParse(readKept(accountStorage, KEY));
    if (!kept.success) return undefined;
    const bitmap = await createImageBitmap(file).catch(() => undefined);
    if (!bitmap) return undefined; // No picture the browser reads, and so none of ours.
    const { picture, width, height, pixels } = kept.data;
    const isSize = bitmap.width === width && bitmap.height === height;
    const isSame = isSize && (await fingerprint(bitmap)) === pixels;
    bitmap.close();
    return isSame ? picture : undefined;
  }
}

/** The SHA-256 of a picture's pixels; where nothing shows, colours do not count. */
async function fingerprint(picture: HTMLCanvasElement | ImageBitmap): Promise<string> {
  const canvas = new OffscreenCanvas(picture.width, picture.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(picture, 0, 0);
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
  return digestOf(data);
}
