import { Injectable, inject } from '@angular/core';
import type { Operation, Picture } from '@stylet/core/document';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { BrowserDb } from '../../storage/browser-db';

/** What tells one picture's file from another's. */
export type PictureFile = Pick<Picture, 'digest' | 'medium'>;

/** The files of pictures: those that wait to be sent are here, the server has the others. */
@Injectable({ providedIn: 'root' })
export class PictureFiles {
  private readonly api = inject(Api);
  private readonly db = inject(BrowserDb);
  /** Put in just now; on their way into this browser's store. */
  private readonly coming = new Map<string, Blob>();

  /** The file by which a picture is shown: its pixels, or the PDF that draws it. */
  async get({ digest, medium }: PictureFile): Promise<Blob> {
    const here = this.coming.get(digest) ?? (await this.waiting(digest));
    return here ?? firstValueFrom(this.api.pictureFile(digest, medium));
  }

  /** Keeps a file until the server has it. */
  async keep(digest: string, file: Blob): Promise<void> {
    this.coming.set(digest, file);
    try {
      await (await this.db.open()).put('pictures', { digest, file });
    } finally {
      // Without a store it stays in memory, to be sent all the same.
      if (await this.waiting(digest)) this.coming.delete(digest);
    }
  }

  /** Sends the files that operations are about to name. Throws what the server says to them. */
  async sendFor(operations: readonly Operation[]): Promise<void> {
    for (const { effect } of operations) {
      if (effect.type !== 'annotation.add' || effect.annotation.kind !== 'picture') continue;
      const { digest, contents } = effect.annotation;
      const file = this.coming.get(digest) ?? (await this.waiting(digest));
      if (!file) continue;
      await firstValueFrom(this.api.takePicture(file, contents));
      this.coming.delete(digest);
      await (await this.db.open()).delete('pictures', digest);
    }
  }

  private async waiting(digest: string): Promise<Blob | undefined> {
    return (await (await this.db.open()).get('pictures', digest))?.file;
  }
}
