import type { HeadingAt } from '../../typed-pages/index';
import { PdfDict, name, textString, type NewPdf, type PdfRef } from '../objects/index';

export interface TitledHeading extends HeadingAt {
  readonly title: string;
}

interface Entry {
  readonly heading: TitledHeading;
  readonly ref: PdfRef;
  readonly children: Entry[];
}

/** Writes headings as an outline (ISO 32000-1, 12.3.3), each under the one before that is of a higher level; nothing for none. */
export function writeHeadings(
  pdf: NewPdf,
  headings: readonly TitledHeading[],
  pages: readonly PdfRef[],
  height: number,
): PdfRef | undefined {
  if (headings.length === 0) return undefined;
  const top: Entry[] = [];
  const above: Entry[] = [];
  for (const heading of headings) {
    while (above.length > 0 && above[above.length - 1].heading.level >= heading.level) above.pop();
    const entry = { heading, ref: pdf.reserve(), children: [] };
    (above.at(-1)?.children ?? top).push(entry);
    above.push(entry);
  }
  const root = pdf.reserve();
  const write = (entries: readonly Entry[], parent: PdfRef): void =>
    entries.forEach(({ heading, ref, children }, i) => {
      write(children, ref);
      pdf.set(
        ref,
        PdfDict.of({
          Title: textString(heading.title),
          Parent: parent,
          Prev: entries[i - 1]?.ref,
          Next: entries[i + 1]?.ref,
          ...ends(children),
          Dest: [pages[heading.page], name('XYZ'), 0, Math.round(height - heading.y), null],
        }),
      );
    });
  write(top, root);
  pdf.set(root, PdfDict.of({ Type: name('Outlines'), ...ends(top) }));
  return root;
}

/** The first and last of entries, and how many show when they are opened: all below (table 153). */
function ends(entries: readonly Entry[]): Record<string, PdfRef | number> {
  if (entries.length === 0) return {};
  return { First: entries[0].ref, Last: entries[entries.length - 1].ref, Count: countOf(entries) };
}

const countOf = (entries: readonly Entry[]): number =>
  entries.reduce((sum, { children }) => sum + 1 + countOf(children), 0);
