import { strFromU8, strToU8 } from 'fflate';
import { picturesIn, typedTextSchema, type TypedText } from '../../typed-pages/index';
import { fingerprintOf, isPrintOf } from '../annotations/fingerprint';
import {
  PdfDict,
  PdfRef,
  PdfStream,
  PdfSyntaxError,
  bytesOf,
  pdfDate,
  textOf,
  textString,
  type NewPdf,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import { PIECE } from '../landmarks/own-keys';
import type { PdfPage } from '../pages';
import { keptPictures, type PictureInText } from './drawn-pictures';

/**
 * Data of our own with a file (ISO 32000-1, 14.5): the text its pages show, as it is read back here, and by what is told
 * whether they still show that. `contents`: what each page draws.
 */
export function withSource(
  pdf: NewPdf,
  text: TypedText,
  contents: readonly Uint8Array[],
  pictures: PdfValue[],
  now: string,
): PdfDict {
  const own = PdfDict.of({
    Text: pdf.addStream(new PdfDict(), strToU8(JSON.stringify(text))),
    Prints: pdf.add(contents.map((bytes) => textString(fingerprintOf(bytes)))),
    ...(pictures.length > 0 ? { Pictures: pictures } : {}),
  });
  return PdfDict.of({ [PIECE]: PdfDict.of({ LastModified: pdfDate(now), Private: own }) });
}

/** A text as a file of typed pages has it, with its pictures. */
export interface TextInFile {
  readonly text: TypedText;
  readonly pictures: readonly PictureInText[];
}

/** The text of a file of typed pages; undefined where it has none, or other programs have changed what its pages show. */
export function readSource(file: PdfFile, pages: readonly PdfPage[]): TextInFile | undefined {
  const pieces = file.dict(file.catalog.get('PieceInfo'));
  const own = file.dict(file.dict(pieces?.get(PIECE) ?? null)?.get('Private') ?? null);
  const stream = file.resolve(own?.get('Text') ?? null);
  if (!own || !(stream instanceof PdfStream)) return undefined;
  const prints = file.array(own.get('Prints')).map((value) => textOf(file.resolve(value)));
  if (prints.length !== pages.length) return undefined;
  try {
    if (!pages.every((page, i) => isPrintOf(prints[i], contentsOf(file, page)))) return undefined;
    const json: unknown = JSON.parse(strFromU8(file.decode(stream)));
    const text = typedTextSchema.safeParse(json).data;
    const pictures =
      text && keptPictures(file, own.get('Pictures'), pages, picturesIn(text.blocks));
    return pictures && { text, pictures };
  } catch (error) {
    // Cut or encoded anew by another program: there is nothing to go by.
    if (error instanceof PdfSyntaxError || error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** What the only content stream of a page draws; nothing where it has several, as ours have not. */
function contentsOf(file: PdfFile, { dict }: PdfPage): Uint8Array {
  const contents = dict.get('Contents');
  const stream = contents instanceof PdfRef ? file.resolve(contents) : null;
  return stream instanceof PdfStream ? file.decode(stream) : bytesOf('');
}
