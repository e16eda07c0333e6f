import type { TypedPicture } from '@stylet/core/pdf';
import { picturesIn, type Block } from '@stylet/core/typed-pages';
import type { PictureShelf } from '../pictures/picture-shelf';

/** Has the pictures of a text at hand while something is done with them. Throws Problem `picture-not-found`. */
export async function withPicturesOf<T>(
  shelf: PictureShelf,
  blocks: readonly Block[],
  work: (pictures: (digest: string) => TypedPicture | undefined) => T,
): Promise<T> {
  const digests = [...new Set(picturesIn(blocks).map(({ digest }) => digest))];
  const release = await shelf.prepare(digests);
  try {
    const files = new Map<string, Buffer>();
    for (const digest of digests) {
      const file = await shelf.original(digest);
      if (file) files.set(digest, file);
    }
    return work((digest) => {
      const prepared = shelf.get(digest);
      const file = files.get(digest);
      return prepared && { prepared, ...(file ? { file } : {}) };
    });
  } finally {
    release();
  }
}
