import {
  PdfDict,
  PdfRef,
  PdfUpdate,
  type Deflate,
  type PdfFile,
  type PdfValue,
} from './objects/index';
import { isMark } from './annotations/marks';
import { isWordLink } from './annotations/word-links';
import { subtypeOf } from './annotations/kinds';
import { readSignatures, withoutSignatures } from './signatures';
import type { PdfPage } from './pages';

/**
 * What to append to a file so that it can be worked on: annotations that stand directly on their page become objects
 * of their own, and one that stands on several pages becomes one for each (ISO 32000-1, 12.5.2, has it on one page
 * only). Links of words of typed text go: the text has them itself. Of a file that was mended, signatures hold no more. Empty where there is nothing to do; and for a signed
 * file that was not mended, which stays as it was signed.
 */
export function tidyingUpdate(
  file: PdfFile,
  pages: readonly PdfPage[],
  isMended: boolean,
  deflate?: Deflate,
): Uint8Array {
  const update = new PdfUpdate(file, deflate);
  const isSigned = readSignatures(file).count > 0;
  if (isSigned && !isMended) return new Uint8Array();
  const catalog = withoutSignatures(file, update);
  if (Object.keys(catalog).length > 0)
    update.set(file.trailer.get('Root') as PdfRef, file.catalog.with(catalog));
  const seen = new Set<number>();
  for (const page of pages) {
    const before = file.array(page.dict.get('Annots'));
    const here = new Set<number>();
    const after = before
      .filter((value) => !isWordLink(file, value))
      .map((value) => own(file, update, page.ref, value, seen, here));
    for (const object of here) seen.add(object);
    if (after.length < before.length || after.some((value, i) => value !== before[i]))
      update.set(page.ref, page.dict.with({ Annots: after }));
  }
  return update.bytes();
}

/** What stands for an annotation on its page alone. */
function own(
  file: PdfFile,
  update: PdfUpdate,
  page: PdfRef,
  value: PdfValue,
  elsewhere: ReadonlySet<number>,
  here: Set<number>,
): PdfValue {
  if (value instanceof PdfDict) return update.add(value.with({ P: page }));
  const dict = value instanceof PdfRef ? file.dict(value) : undefined;
  if (!(value instanceof PdfRef) || !dict) return value;
  here.add(value.object);
  const isOne = !elsewhere.has(value.object);
  // Form fields and pop-ups are referred to from elsewhere in the file: a copy would be another one.
  if (isOne || !(isMark(file, dict) || subtypeOf(file, dict) === 'Link')) return value;
  return update.add(dict.with({ P: page, Popup: null }));
}
