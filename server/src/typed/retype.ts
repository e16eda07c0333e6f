import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { pagesInOrder, type Effect } from '@stylet/core/document';
import { TypeTools, typedPdf, type Deflate } from '@stylet/core/pdf';
import {
  PageSetter,
  effectsOfText,
  identified,
  type LaidText,
  type TypedText,
} from '@stylet/core/typed-pages';
import type { ShelvedState } from '../export/annotation-shelf';
import type { PictureShelf } from '../pictures/picture-shelf';
import { partsOf, readyForFormulas } from '../type/formulas';
import { withPicturesOf } from './pictures-at-hand';
import { textIn, type TextTask } from './text-in';

export interface RetypeTask extends TextTask {
  readonly documentId: string;
  /** The digest of the file of the text as it was. */
  readonly from: string;
  readonly text: TypedText;
  readonly title: string;
  readonly now: string;
  /** Where the PDF of the text as it is is written. */
  readonly to: string;
}

/** Writes a text that has become another one as a PDF; what is done by that to the document. */
export async function retype(
  { documentId, path, from, text, title, now, to }: RetypeTask,
  { pages, annotations, landmarks }: ShelvedState,
  tools: TypeTools,
  shelf: PictureShelf,
  deflate: Deflate,
): Promise<Effect[]> {
  const was = textIn({ path });
  if (!was) throw new Error(`The file ${from} of typed pages has no text.`);
  const own = new TypeTools(tools.typesetter, tools.subset);
  await readyForFormulas(own.typesetter.engine, [...partsOf(was.blocks), ...partsOf(text.blocks)]);
  const setter = new PageSetter(own.typesetter);
  const laid = (one: TypedText): LaidText => ({ text: one, pages: setter.pages(one) });
  const is = laid(identified(text));
  const bytes = await withPicturesOf(shelf, is.text.blocks, (pictures) =>
    typedPdf(is.text, is.pages, own, { title, now, pictures }, deflate),
  );
  writeFileSync(to, bytes);
  const digest = createHash('sha256').update(bytes).digest('hex');
  const document = { id: documentId, pages: pagesInOrder(pages), annotations, landmarks };
  return effectsOfText(document, laid(was), is, { from, to: digest });
}
