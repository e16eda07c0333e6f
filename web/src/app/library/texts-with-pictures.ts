import { MOST_PICTURES, textKindOf } from '@stylet/core/typed-pages';
import type { Beside } from '../../kept/begun';
import type { FoundFile } from './dropped-files';

/** What becomes a document: a file, with the pictures that go with it. */
export interface ComingFile {
  readonly file: File;
  readonly beside: readonly Beside[];
}

const PICTURE = /\.(?:png|jpe?g|webp|svg)$/i;

/** Files as they become documents: a picture that a text among them names goes with it, and is none by itself. */
export async function textsWithPictures(found: readonly FoundFile[]): Promise<ComingFile[]> {
  const pictures = found.filter(({ path }) => PICTURE.test(path));
  const isRich = ({ path }: FoundFile): boolean =>
    ['markdown', 'html'].includes(textKindOf(path) ?? '');
  if (pictures.length === 0 || !found.some(isRich))
    return found.map(({ file }) => ({ file, beside: [] }));
  const taken = new Set<FoundFile>();
  const coming: (ComingFile & { readonly from: FoundFile })[] = [];
  for (const one of found) {
    const named = isRich(one) ? await namedIn(one, pictures) : [];
    for (const picture of named) taken.add(picture);
    const beside = named.map(({ path, file }) => ({ path: pathFrom(one.path, path), file }));
    coming.push({ file: one.file, beside, from: one });
  }
  return coming
    .filter(({ from }) => !taken.has(from))
    .map(({ file, beside }) => ({ file, beside }));
}

async function namedIn(
  { file }: FoundFile,
  pictures: readonly FoundFile[],
): Promise<readonly FoundFile[]> {
  const text = await file.text();
  return pictures
    .filter(({ file: { name } }) =>
      [name, encodeURI(name), encodeURIComponent(name)].some((written) => text.includes(written)),
    )
    .slice(0, MOST_PICTURES);
}

/** The path of a file as a text beside it says it, if it is not above that. */
function pathFrom(text: string, path: string): string {
  const folder = text.slice(0, text.lastIndexOf('/') + 1);
  return path.startsWith(folder) ? path.slice(folder.length) : path;
}
