import { PdfFile, readPages, readSource } from '@stylet/core/pdf';
import { identified, type TypedText } from '@stylet/core/typed-pages';
import { FileBytes } from '../pdf/file-bytes';
import { inflate } from '../pdf/inflate';

export interface TextTask {
  readonly path: string;
}

/** The text of a file of typed pages; undefined where it has none. */
export function textIn({ path }: TextTask): TypedText | undefined {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflate);
    const text = readSource(file, readPages(file));
    return text && identified(text);
  } finally {
    bytes.close();
  }
}
