import type { Destination, Destinations } from './destinations';
import { PdfDict, PdfRef, numberOr, textOf, type PdfFile, type PdfValue } from './objects/index';

/** An item of a file's outline (ISO 32000-1, 12.3.3). */
export interface OutlineItem {
  readonly title: string;
  readonly destination?: Destination;
  /** Whether its children are shown at first: a count that is not negative. */
  readonly open: boolean;
  readonly children: readonly OutlineItem[];
  /** The object it is, if it is one of its own. */
  readonly ref: PdfRef | undefined;
  readonly dict: PdfDict;
}

const MOST_ENTRIES = 100_000;

/** The outline as a tree; empty when the file has none. Loops in damaged files are cut. */
export function readOutline(file: PdfFile, destinations: Destinations): OutlineItem[] {
  const root = file.dict(file.catalog.get('Outlines'));
  if (!root) return [];
  const seen = new Set<PdfDict>();
  const siblings = (first: PdfValue): OutlineItem[] => {
    const entries: OutlineItem[] = [];
    let value = first;
    let item = file.dict(value);
    while (item instanceof PdfDict && !seen.has(item) && seen.size < MOST_ENTRIES) {
      seen.add(item);
      const destination = destinations.of(item);
      entries.push({
        title: textOf(file.resolve(item.get('Title')))
          .replace(/\s+/g, ' ')
          .trim(),
        ...(destination ? { destination } : {}),
        open: (numberOr(file.resolve(item.get('Count'))) ?? 0) >= 0,
        children: siblings(item.get('First')),
        ref: value instanceof PdfRef ? value : undefined,
        dict: item,
      });
      value = item.get('Next');
      item = file.dict(value);
    }
    return entries;
  };
  return siblings(root.get('First'));
}
