import { Injectable, inject } from '@angular/core';
import type { Operation, Picture } from '@stylet/core/document';
import { firstValueFrom } from 'rxjs';
import { picturePath } from '../../../../kept/addresses';
import { Api } from '../../../api/api';
import { KeptDocuments } from '../../../kept/kept-documents';
import { BrowserDb } from '../../../storage/browser-db';

/** What tells one picture's file from another's. */
export type PictureFile = Pick<Picture, 'digest' | 'medium'>;

/** The files of pictures: those that wait to be sent are here, the server has the others. */
@Injectable({ providedIn: 'root' })
export class PictureFiles {
  private readonly api = inject(Api);
  private readonly documents = inject(KeptDocuments);
  private readonly db = inject(BrowserDb);
  /** Put in just now, and on their way into this browser's store; or in memory for want of one. */
  private readonly coming = new Map<string, Blob>();
  private readonly storing = new Map<string, Promise<void>>();

  /** The file by which a picture is shown: its pixels, or the PDF that draws it. */
  async get({ digest, medium }: PictureFile): Promise<Blob> {
    const here = this.coming.get(digest) ?? (await this.waiting(digest));
    return (
      here ??
      (await this.documents.file(picturePath(digest, medium))) ??
      firstValueFrom(this.api.pictureFile(digest, medium))
    );
  }

  /** Keeps a file until the server has it. */
  keep(digest: string, file: Blob): void {
    this.coming.set(digest, file);
    this.storing.set(digest, this.store(digest, file));
  }

  /** Waits until the files that operations name are kept. Throws where this browser cannot. */
  async kept(operations: readonly Operation[]): Promise<void> {
    for (const { digest } of picturesIn(operations)) await this.storing.get(digest);
  }

  /** Sends the files that operations are about to name. Throws what the server says to them. */
  async sendFor(operations: readonly Operation[]): Promise<void> {
    for (const { digest, contents } of picturesIn(operations)) {
      const file = this.coming.get(digest) ?? (await this.waiting(digest));
      if (!file) continue;
      await firstValueFrom(this.api.takePicture(file, contents));
      this.coming.delete(digest);
      await (await this.db.open()).delete('pictures', digest);
    }
  }

  private async store(digest: string, file: Blob): Promise<void> {
    await (await this.db.open()).put('pictures', { digest, file });
    this.coming.delete(digest);
    this.storing.delete(digest);
  }

  private async waiting(digest: string): Promise<Blob | undefined> {
    return (await (await this.db.open()).get('pictures', digest))?.file;
  }
}

const picturesIn = (operations: readonly Operation[]): Picture[] =>
  operations.flatMap(({ effect }) =>
    effect.type === 'annotation.add' && effect.annotation.kind === 'picture'
      ? [effect.annotation]
      : [],
  );
