import { Injectable, signal } from '@angular/core';
import { pictureSchema, type Picture } from '@stylet/core/document';
import { z } from 'zod';
import { readKept } from '../../../settings/kept';
import { accountStorage } from '../../../storage/account';

const KEY = 'stylet.pictures';
const MOST = 9;

export const readyPictureSchema = pictureSchema.pick({
  digest: true,
  medium: true,
  width: true,
  height: true,
  contents: true,
  source: true,
  crop: true,
});
/** A picture that can be put on a page: its file, its words, and where it is from. */
export type ReadyPicture = z.infer<typeof readyPictureSchema>;

/** The pictures used last, the latest first. Kept in this browser. */
@Injectable({ providedIn: 'root' })
export class RecentPictures {
  private readonly kept = signal<readonly ReadyPicture[]>(read());
  readonly list = this.kept.asReadonly();

  add(picture: ReadyPicture): void {
    const others = this.list().filter(({ digest }) => digest !== picture.digest);
    this.kept.set([picture, ...others].slice(0, MOST));
    accountStorage.setItem(KEY, JSON.stringify(this.list()));
  }
}

function read(): ReadyPicture[] {
  const kept = z.array(readyPictureSchema).safeParse(readKept(accountStorage, KEY));
  return kept.success ? kept.data : [];
}

/** What of a picture annotation can be put on pages again. */
export const readyFrom = (picture: Picture): ReadyPicture => readyPictureSchema.parse(picture);
