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
    const found = readSource(file, readPages(file));
    return found && identified(found.text);
  } finally {
    bytes.close();
  }
}
