import { remarkOn, type ExportHow, type ExportPage, type PdfFile } from '@stylet/core/pdf';

/** What of a document's annotations an export does without, in numbers. */
export interface LeftOut {
  /** They are hidden, and neither drawn into pages nor left on them. */
  readonly hidden: number;
  /** Their words are. */
  readonly notes: number;
  /** They carry files or sounds. */
  readonly carried: number;
}

const CARRIES = new Set(['FileAttachment', 'Sound']);

/** What an export leaves out; `own` is the file of annotations that name none. */
export function leftOut(
  pages: readonly ExportPage[],
  own: string,
  fileOf: (source: string) => PdfFile | undefined,
  { mode, keepsNotes }: ExportHow,
): LeftOut {
  let [hidden, notes, carried] = [0, 0, 0];
  if (mode === 'editable') return { hidden, notes, carried };
  const losesWords = mode === 'none' || !keepsNotes;
  for (const { annotations } of pages)
    for (const annotation of Object.values(annotations)) {
      if (annotation.hidden) hidden++;
      else if (annotation.kind === 'foreign' && CARRIES.has(annotation.subtype))
        carried += mode === 'none' ? 1 : 0;
      else if (losesWords) {
        const file = fileOf(annotation.origin?.source ?? own);
        if (file && remarkOn(file, annotation) !== '') notes++;
      }
    }
  return { hidden, notes, carried };
}
