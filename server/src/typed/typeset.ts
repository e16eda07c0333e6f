import { readFileSync, writeFileSync } from 'node:fs';
import { TypeTools, typedPdf, type Deflate } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import type { PictureFacts } from '@stylet/core/api';
import {
  PageSetter,
  readText,
  typedTextSchema,
  usualSetup,
  type TextKind,
} from '@stylet/core/typed-pages';
import type { PictureShelf } from '../pictures/picture-shelf';
import { partsOf, readyForFormulas } from '../type/formulas';
import { decoded } from './decoded';
import { withPicturesOf } from './pictures-at-hand';

export interface TypesetTask {
  /** A file of text. */
  readonly path: string;
  readonly kind: TextKind;
  /** What is known of pictures, by where it says that they are. */
  readonly known: readonly (readonly [string, PictureFacts])[];
  /** What the document is called where the text does not say. */
  readonly name: string;
  readonly now: string;
  /** Where the PDF is written. */
  readonly to: string;
}

/** Writes a file of text as a PDF of typed pages. Throws Problem `text-unreadable` and `text-too-long`. */
export async function typeset(
  { path, kind, known, name, now, to }: TypesetTask,
  tools: TypeTools,
  shelf: PictureShelf,
  deflate: Deflate,
): Promise<void> {
  const source = decoded(readFileSync(path));
  if (source === undefined) throw new Problem('text-unreadable', 'It has bytes that no text has.');
  const { blocks, title } = readText(kind, source, new Map(known));
  const parsed = typedTextSchema.safeParse({ setup: usualSetup(), blocks });
  if (!parsed.success) throw new Problem('text-too-long', parsed.error.issues[0].message);
  // What glyphs stand for is told by what was met before: nothing was, so that the same text gives the same bytes.
  const own = new TypeTools(tools.typesetter, tools.subset);
  await readyForFormulas(own.typesetter.engine, partsOf(parsed.data.blocks));
  const pages = new PageSetter(own.typesetter).pages(parsed.data);
  const bytes = await withPicturesOf(shelf, parsed.data.blocks, (pictures) =>
    typedPdf(parsed.data, pages, own, { title: title ?? name, now, pictures }, deflate),
  );
  writeFileSync(to, bytes);
}
