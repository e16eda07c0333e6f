import { linkTargetSchema } from '../../document/index';
import type { PdfDict, PdfFile, PdfValue } from '../objects/index';
import { MARKUP, OWN_KEY, subtypeOf } from './kinds';
import { targetIn } from './link-wins';
import { keptTarget } from './own-copy';

/** Looked at once: manuals have tens of thousands of links. */
const known = new WeakMap<PdfDict, boolean>();

/** Whether an annotation is a link that Stylet has written, and that still leads where one of its links can. */
function isOwnLink(file: PdfFile, dict: PdfDict): boolean {
  if (dict.get(OWN_KEY) === null || subtypeOf(file, dict) !== 'Link') return false;
  let isOwn = known.get(dict);
  if (isOwn === undefined) {
    const kept = linkTargetSchema.safeParse(keptTarget(file, dict));
    isOwn = kept.success && targetIn(file, dict, kept.data) !== undefined;
    known.set(dict, isOwn);
  }
  return isOwn;
}

/** Whether an annotation is one of the document's: a mark on the page, or a link of Stylet's own. */
export const isMark = (file: PdfFile, dict: PdfDict): boolean =>
  MARKUP.has(subtypeOf(file, dict)) || isOwnLink(file, dict);

/** The same of what stands among a page's annotations. */
export function isMarkAt(file: PdfFile, value: PdfValue): boolean {
  const dict = file.dict(value);
  return dict !== undefined && isMark(file, dict);
}
