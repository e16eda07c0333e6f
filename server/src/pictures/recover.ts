import { writeFile } from 'node:fs/promises';
import { pictureOutline, type Annotation, type Foreign, type Picture } from '@stylet/core/document';
import { polygonBounds } from '@stylet/core/ink';
import type { EmbeddedPicture, PictureInText } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import sharp from 'sharp';
import type { Identity } from '../access/identity';
import { seenPictures } from './seen';
import { storePicture, type PictureTools } from './store';

/** The pictures of a file that is brought in. */
export interface FoundPictures {
  /** An annotation with its picture at hand. */
  readonly of: (annotation: Annotation) => Annotation;
  /** Whether a picture is here just as the file names it. */
  readonly has: (digest: string) => boolean;
}

/**
 * Has every picture that annotations of a file or its text name at hand: those that whoever brings it in does not have are taken out of the
 * file. What cannot be taken out stays a mark of the file's.
 */
export async function withPictures(
  tools: PictureTools,
  identity: Identity,
  path: string,
  wanted: readonly PictureInText[],
): Promise<FoundPictures> {
  const digests = wanted.map(({ digest }) => digest);
  // A file may name the digest of a picture that this person has never been given.
  const seen = await seenPictures(tools.database, identity, digests);
  const known = new Map([...seen.keys()].map((digest) => [digest, digest]));
  for (const picture of wanted) {
    if (known.has(picture.digest)) continue;
    const digest = await recover(tools, identity, path, picture);
    if (digest) known.set(picture.digest, digest);
  }
  return {
    of: (annotation) => {
      if (annotation.kind !== 'picture') return annotation;
      const digest = known.get(annotation.digest);
      return digest ? { ...annotation, digest } : asForeign(annotation);
    },
    has: (digest) => known.get(digest) === digest,
  };
}

/** Stores a picture that a file carries; its digest, or undefined where there is none. */
async function recover(
  tools: PictureTools,
  identity: Identity,
  path: string,
  { object, generation }: PictureInText,
): Promise<string | undefined> {
  const found = await tools.pool.embedded({ path, object, generation });
  if (!found) return undefined;
  const copy = tools.spool.workPath('.picture');
  try {
    await writeFile(copy, await fileOf(found));
    return (await storePicture(tools, identity, await tools.spool.adopt(copy))).digest;
  } catch (error) {
    if (error instanceof Problem && error.status < 500) return undefined;
    throw error;
  } finally {
    await tools.spool.discard(copy);
  }
}

/** The bytes of a file for a picture; pixels as PNG, without loss. */
async function fileOf(found: EmbeddedPicture): Promise<Uint8Array> {
  if (found.kind !== 'pixels') return found.bytes;
  const { width, height, components, samples, alpha } = found.pixels;
  const image = sharp(samples, { raw: { width, height, channels: components } });
  if (alpha) image.joinChannel(Buffer.from(alpha), { raw: { width, height, channels: 1 } });
  return image.png().toBuffer();
}

function asForeign(picture: Picture): Foreign {
  const { digest: _, medium: _m, width: _w, height: _h, crop: _c, inFront: _f, ...rest } = picture;
  const { transform: _t, source: _s, ...common } = rest;
  const box = polygonBounds([pictureOutline(picture)])!;
  return {
    ...common,
    kind: 'foreign',
    subtype: 'Stamp',
    color: '#000000',
    box,
    origin: picture.origin!,
  };
}
