import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { MOST_PICTURES, picturesTakenOut } from '@stylet/core/typed-pages';
import { decoded } from './decoded';

export interface WrittenOutTask {
  /** A file of text. */
  readonly path: string;
  /** Where pictures that are written out in it go: a folder that is there. */
  readonly to: string;
}

/** The file of a picture that is written out in a text, and where the text says that it is. */
export interface WrittenOutFile {
  readonly source: string;
  readonly path: string;
}

/** Writes pictures that are written out in a text as files of their own; as many as a text may have. */
export function writtenOut({ path, to }: WrittenOutTask): WrittenOutFile[] {
  const text = decoded(readFileSync(path));
  if (text === undefined) return [];
  return picturesTakenOut(text)
    .pictures.slice(0, MOST_PICTURES)
    .flatMap(({ source, bytes }, i) => {
      const found = bytes();
      if (!found) return [];
      const own = join(to, `${i}.picture`);
      writeFileSync(own, found);
      return [{ source, path: own }];
    });
}
