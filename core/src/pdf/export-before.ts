import { KeptPacks, PdfRef, type PdfDict, type PdfUpdate, type PdfValue } from './objects/index';

/** How many numbers after the file's own are given; beyond that they are given anew, as some have fallen free. */
const MOST_NUMBERS = 500_000;

interface WrittenPage {
  readonly entries: Readonly<Record<string, PdfValue>>;
  readonly dict: PdfDict;
}

/**
 * What the export of a file before leaves for the next one: annotations are the same objects again, and pages of the
 * same annotations have the same dictionary, so that all object streams without a change stand as they were.
 */
export class ExportBefore {
  readonly packs = new KeptPacks();
  private before = new Map<string, number>();
  private now = new Map<string, number>();
  private readonly pages = new WeakMap<PdfDict, WrittenPage>();

  /** An update is begun: what else it adds gets numbers after those known. */
  begin(update: PdfUpdate): void {
    let last = 0;
    for (const number of this.now.values()) last = Math.max(last, number);
    const isTooFar = last > update.file.size + MOST_NUMBERS;
    this.before = isTooFar ? new Map() : this.now;
    this.now = new Map();
    if (!isTooFar) update.startAfter(last);
  }

  /** The object that something is, by a key of its own: the same as in the export before, or a new one. */
  refFor(update: PdfUpdate, key: string): PdfRef {
    if (this.now.has(key)) return update.reserve();
    const known = this.before.get(key);
    const ref = known === undefined ? update.reserve() : new PdfRef(known, 0);
    this.now.set(key, ref.object);
    return ref;
  }

  /** A page's dictionary with some entries replaced; the one of before where they are the same. */
  page(dict: PdfDict, entries: Readonly<Record<string, PdfValue>>): PdfDict {
    const known = this.pages.get(dict);
    if (known && isSame(known.entries, entries)) return known.dict;
    const made = { entries, dict: dict.with(entries) };
    this.pages.set(dict, made);
    return made.dict;
  }
}

function isSame(
  a: Readonly<Record<string, PdfValue>>,
  b: Readonly<Record<string, PdfValue>>,
): boolean {
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => key in b && areSame(a[key], b[key]))
  );
}

function areSame(a: PdfValue, b: PdfValue): boolean {
  if (a instanceof PdfRef && b instanceof PdfRef)
    return a.object === b.object && a.generation === b.generation;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((value, i) => areSame(value, b[i]));
  return a === b;
}
