import { deflateSync } from 'node:zlib';
import type { PictureType } from '@stylet/core/api';
import { jpegImage, pixelImage, type Orientation, type PreparedPicture } from '@stylet/core/pdf';
import sharp from 'sharp';

type PreparedAsImage = PreparedPicture & { kind: 'image' };

/** A picture of pixels as it goes into PDFs: a JPEG as it is, others by their pixels, without loss. */
export async function prepareImage(
  file: Buffer,
  type: PictureType,
  orientation: Orientation,
): Promise<PreparedAsImage> {
  return type === 'jpeg'
    ? { kind: 'image', image: await jpegOf(file), orientation }
    : { kind: 'image', image: await pixelsOf(file), orientation };
}

async function jpegOf(file: Buffer) {
  const { width, height, channels, icc } = await sharp(file).metadata();
  const components = channels === 1 || channels === 4 ? channels : 3;
  return jpegImage(file, {
    width,
    height,
    components,
    isInverted: components === 4 && hasAdobeMarker(file),
    ...(icc ? { profile: icc } : {}),
  });
}

/** Whether a JPEG has the segment APP14 that begins with “Adobe” (ITU-T T.872, 6.5.3). */
function hasAdobeMarker(file: Buffer): boolean {
  for (let at = 2; at + 4 < file.length && file[at] === 0xff;) {
    const marker = file[at + 1];
    // The scan begins: no segments follow that say how to read it.
    if (marker === 0xda) return false;
    if (marker === 0xee && file.toString('latin1', at + 4, at + 9) === 'Adobe') return true;
    at += 2 + file.readUInt16BE(at + 2);
  }
  return false;
}

async function pixelsOf(file: Buffer) {
  const { data, info } = await sharp(file)
    .toColourspace('srgb')
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const components = channels <= 2 ? 1 : 3;
  const hasAlpha = channels === components + 1;
  const deflate = (bytes: Uint8Array): Uint8Array => deflateSync(bytes, { level: 6 });
  if (!hasAlpha) return pixelImage({ width, height, components, samples: data }, deflate);
  const count = width * height;
  const samples = new Uint8Array(count * components);
  const alpha = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < components; k++) samples[components * i + k] = data[channels * i + k];
    alpha[i] = data[channels * i + components];
  }
  const shows = alpha.some((value) => value < 255);
  const pixels = { width, height, components, samples } as const;
  return pixelImage(shows ? { ...pixels, alpha } : pixels, deflate);
}
