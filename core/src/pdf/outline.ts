import type { Destination, Destinations } from './destinations';
import { PdfDict, numberOr, textOf, type PdfFile, type PdfValue } from './objects/index';

/** An entry of the outline (ISO 32000-1, 12.3.3). */
export interface OutlineEntry {
  readonly title: string;
  readonly destination?: Destination;
  /** Whether its children are shown at first: a count that is not negative. */
  readonly open: boolean;
  readonly children: readonly OutlineEntry[];
}

const MOST_ENTRIES = 100_000;

/** The outline as a tree; empty when the file has none. Loops in damaged files are cut. */
export function readOutline(file: PdfFile, destinations: Destinations): OutlineEntry[] {
  const root = file.dict(file.catalog.get('Outlines'));
  if (!root) return [];
  const seen = new Set<PdfDict>();
  const siblings = (first: PdfValue): OutlineEntry[] => {
    const entries: OutlineEntry[] = [];
    let item = file.dict(first);
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
      });
      item = file.dict(item.get('Next'));
    }
    return entries;
  };
  return siblings(root.get('First'));
}
