import { subtypeOf } from './annotations/kinds';
import {
  PdfStream,
  PdfDict,
  nameText,
  numberOr,
  textOf,
  type PdfFile,
  type PdfValue,
} from './objects/index';
import type { PdfPage } from './pages';
import { readNameTree } from './trees';

/** A file inside a PDF (ISO 32000-1, 7.11.4): listed for the document, or attached to a place on a page. */
export interface Attachment {
  readonly name: string;
  readonly description: string;
  /** Bytes, where the file says it. */
  readonly size: number | undefined;
  readonly stream: PdfStream;
}

/** Files of one PDF that are told of. */
const MOST = 10_000;

/** The files in a PDF: those of the document by name, then those of pages. */
export function readAttachments(file: PdfFile, pages: readonly PdfPage[]): Attachment[] {
  const found: Attachment[] = [];
  const add = (specification: PdfValue, key: string): void => {
    const attachment = found.length < MOST ? attachmentOf(file, specification, key) : undefined;
    if (attachment) found.push(attachment);
  };
  for (const [key, value] of embeddedFiles(file)) add(value, key);
  for (const page of pages)
    for (const value of file.array(page.dict.get('Annots'))) {
      const dict = file.dict(value);
      if (dict && subtypeOf(file, dict) === 'FileAttachment') add(dict.get('FS'), 'File');
    }
  return found;
}

/** The document's own list (7.7.4, EmbeddedFiles), by its keys. */
export const embeddedFiles = (file: PdfFile): Map<string, PdfValue> =>
  readNameTree(file, file.dict(file.catalog.get('Names'))?.get('EmbeddedFiles') ?? null);

/** Whether a file is a portfolio: a collection of files, with a page that only says so (12.3.5). */
export const isPortfolio = (file: PdfFile): boolean =>
  file.dict(file.catalog.get('Collection')) !== undefined;

function attachmentOf(file: PdfFile, value: PdfValue, key: string): Attachment | undefined {
  const specification = file.dict(value);
  const embedded = file.dict(specification?.get('EF') ?? null);
  if (!specification || !embedded) return undefined;
  const stream = file.resolve(embedded.get('UF') ?? embedded.get('F'));
  const other = stream instanceof PdfStream ? stream : file.resolve(embedded.get('F'));
  if (!(other instanceof PdfStream)) return undefined;
  const named = ['UF', 'F'].map((entry) => textOf(file.resolve(specification.get(entry))));
  const parms = file.resolve(other.dict.get('Params'));
  return {
    name: named.find((text) => text.trim() !== '') ?? key,
    description: textOf(file.resolve(specification.get('Desc'))),
    size: parms instanceof PdfDict ? numberOr(file.resolve(parms.get('Size'))) : undefined,
    stream: other,
  };
}

/** The kind of file it says it is (7.11.4.1, Subtype), or nothing. */
export const mediaTypeOf = (file: PdfFile, { stream }: Attachment): string | undefined =>
  nameText(file.resolve(stream.dict.get('Subtype')));
