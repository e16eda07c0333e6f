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
  private readonly kept = new Map<string, Shelved>();
  /** How many exports are using each. */
  private readonly used = new Map<string, number>();

  constructor(
    private readonly database: Database,
    private readonly most: number,
  ) {}

  get(digest: string): PreparedPicture | undefined {
    return this.kept.get(digest)?.picture;
  }

  /**
   * Has pictures ready until what it returns is called. Throws Problem `picture-not-found`.
   */
  async prepare(digests: readonly string[]): Promise<() => void> {
    const wanted = [...new Set(digests)];
    for (const digest of wanted) this.used.set(digest, (this.used.get(digest) ?? 0) + 1);
    const release = (): void => {
      for (const digest of wanted) this.used.set(digest, this.used.get(digest)! - 1);
      this.tidy();
    };
    try {
      for (const digest of wanted) {
        const shelved = this.kept.get(digest) ?? (await this.load(digest));
        // The one used last is the last to go.
        this.kept.delete(digest);
        this.kept.set(digest, shelved);
      }
    } catch (error) {
      release();
      throw error;
    }
    return release;
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

  private tidy(): void {
    let bytes = [...this.kept.values()].reduce((sum, shelved) => sum + shelved.bytes, 0);
    for (const [digest, shelved] of this.kept) {
      if (bytes <= this.most) return;
      if ((this.used.get(digest) ?? 0) > 0) continue;
      this.kept.delete(digest);
      this.used.delete(digest);
      bytes -= shelved.bytes;
    }
  }
}
