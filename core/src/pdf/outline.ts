import type { Destination, Destinations } from './destinations';
import { LIMITS, PdfLimitError } from './limits';
import {
  PdfRef,
  numberOr,
  textOf,
  type PdfDict,
  type PdfFile,
  type PdfValue,
} from './objects/index';

/** An item of a file's outline (ISO 32000-1, 12.3.3). */
export interface OutlineItem {
  /** As it stands in the file, its spaces included. */
  readonly title: string;
  readonly destination?: Destination;
  /** Whether its children are shown at first: a count that is not negative. */
  readonly open: boolean;
  readonly children: readonly OutlineItem[];
  /** The object it is, if it is one of its own. */
  readonly ref: PdfRef | undefined;
  readonly dict: PdfDict;
}

/** Levels an outline is read to; what lies deeper stands at the lowest of them. */
const MOST_LEVELS = 64;

/**
 * The outline as a tree; empty when the file has none. Loops in damaged files are cut. Throws PdfLimitError for
 * more entries than are taken.
 */
export function readOutline(file: PdfFile, destinations: Destinations): OutlineItem[] {
  const root = file.dict(file.catalog.get('Outlines'));
  if (!root) return [];
  const seen = new Set<PdfDict>();
  const siblings = (first: PdfValue, level: number): OutlineItem[] => {
    const items: OutlineItem[] = [];
    const waiting: PdfValue[] = [first];
    while (waiting.length > 0) {
      const value = waiting.pop()!;
      const dict = file.dict(value);
      if (!dict || seen.has(dict)) continue;
      seen.add(dict);
      if (seen.size > LIMITS.outline) throw new PdfLimitError('outline');
      const isLowest = level === MOST_LEVELS;
      items.push({
        ...facts(value, dict),
        children: isLowest ? [] : siblings(dict.get('First'), level + 1),
      });
      waiting.push(dict.get('Next'));
      if (isLowest) waiting.push(dict.get('First'));
    }
    return items;
  };
  const facts = (value: PdfValue, dict: PdfDict): Omit<OutlineItem, 'children'> => {
    const destination = destinations.of(dict);
    return {
      title: textOf(file.resolve(dict.get('Title'))),
      ...(destination ? { destination } : {}),
      open: (numberOr(file.resolve(dict.get('Count'))) ?? 0) >= 0,
      ref: value instanceof PdfRef ? value : undefined,
      dict,
    };
  };
  return siblings(root.get('First'), 1);
}
