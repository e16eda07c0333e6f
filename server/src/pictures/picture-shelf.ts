import { LRUCache } from 'lru-cache';
import { PdfFile, bytesInMemory, type PreparedPicture } from '@stylet/core/pdf';
import type { Database } from '../db/database';
import { inflate } from '../pdf/inflate';
import { readSource } from '../sources/chunks';
import { prepareImage } from './prepare';
import { findPicture, sizeOfPage } from './queries';

interface Shelved {
  readonly picture: PreparedPicture;
  readonly bytes: number;
}

/** Pictures as they go into files, kept from one export to the next within a bound of bytes. */
export class PictureShelf {
  private readonly kept: LRUCache<string, Shelved>;
  /** Those of exports that are being made, and of how many: they stay at hand, whatever is kept besides. */
  private readonly used = new Map<string, { readonly shelved: Shelved; exports: number }>();

  constructor(
    private readonly database: Database,
    most: number,
  ) {
    this.kept = new LRUCache({ maxSize: most, sizeCalculation: ({ bytes }) => Math.max(1, bytes) });
  }

  /** One that is ready just now. */
  get(digest: string): PreparedPicture | undefined {
    return this.used.get(digest)?.shelved.picture;
  }

  /**
   * Has pictures ready until what it returns is called. Throws Problem `picture-not-found`.
   */
  async prepare(digests: readonly string[]): Promise<() => void> {
    const taken: string[] = [];
    const release = (): void => {
      for (const digest of taken) {
        const use = this.used.get(digest)!;
        if (--use.exports === 0) this.used.delete(digest);
      }
    };
    try {
      for (const digest of new Set(digests)) {
        const shelved =
          this.used.get(digest)?.shelved ?? this.kept.get(digest) ?? (await this.load(digest));
        this.kept.set(digest, shelved);
        // Another may have taken it while it was being read.
        const use = this.used.get(digest) ?? { shelved, exports: 0 };
        use.exports++;
        this.used.set(digest, use);
        taken.push(digest);
      }
    } catch (error) {
      release();
      throw error;
    }
    return release;
  }

  /** The file of a picture where that is not what draws it. Throws Problem `picture-not-found`. */
  async original(digest: string): Promise<Buffer | undefined> {
    const { picture, size } = await findPicture(this.database, digest);
    return picture.type === 'jpeg' ? undefined : this.read(digest, size);
  }

  private async load(digest: string): Promise<Shelved> {
    const { picture, size } = await findPicture(this.database, digest);
    if (!picture.page) {
      const file = await this.read(digest, size);
      const image = await prepareImage(file, picture.type, picture.orientation);
      return { picture: image, bytes: image.image.bytes.length };
    }
    const length = await sizeOfPage(this.database, picture.page);
    const file = await this.read(picture.page, length);
    return {
      picture: { kind: 'page', file: new PdfFile(bytesInMemory(file), inflate) },
      bytes: length,
    };
  }

  private async read(digest: string, size: number): Promise<Buffer> {
    const parts: Buffer[] = [];
    for await (const part of readSource(this.database, digest, 0, size)) parts.push(part);
    return Buffer.concat(parts);
  }
}
