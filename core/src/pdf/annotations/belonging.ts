import { PdfRef, nameText, type PdfDict, type PdfFile, type PdfValue } from '../objects/index';
import { subtypeOf } from './kinds';

/** The object an annotation replies to, or is grouped with (ISO 32000-1, table 170, IRT). */
export const repliesTo = (dict: PdfDict): number | undefined => {
  const parent = dict.get('IRT');
  return parent instanceof PdfRef ? parent.object : undefined;
};

/** Whether it only answers another one (RT), and has no look of its own. */
export const isReply = (file: PdfFile, dict: PdfDict): boolean =>
  repliesTo(dict) !== undefined && nameText(file.resolve(dict.get('RT'))) !== 'Group';

/** The annotations of a page but for some, the replies to those, and the pop-up windows of all that go. */
export function without(
  file: PdfFile,
  annots: readonly PdfValue[],
  going: ReadonlySet<PdfValue>,
): PdfValue[] {
  if (going.size === 0) return [...annots];
  const gone = new Set(going);
  const objects = new Set(
    [...going].flatMap((value) => (value instanceof PdfRef ? value.object : [])),
  );
  // Replies may be answered in turn, in any order.
  for (let size = -1; size !== gone.size;) {
    size = gone.size;
    for (const value of annots) {
      const dict = gone.has(value) ? undefined : file.dict(value);
      const parent = dict && repliesTo(dict);
      if (!dict || parent === undefined || !objects.has(parent) || !isReply(file, dict)) continue;
      gone.add(value);
      if (value instanceof PdfRef) objects.add(value.object);
    }
  }
  const windows = new Set(
    [...gone].flatMap((value) => {
      const popup = file.dict(value)?.get('Popup');
      return popup instanceof PdfRef ? [popup.object] : [];
    }),
  );
  return annots.filter((value) => {
    if (gone.has(value) || (value instanceof PdfRef && windows.has(value.object))) return false;
    const dict = objects.size > 0 ? file.dict(value) : undefined;
    const parent = dict && subtypeOf(file, dict) === 'Popup' ? dict.get('Parent') : undefined;
    return !(parent instanceof PdfRef && objects.has(parent.object));
  });
}
