import type { PageAnnotations } from '../document/index';
import {
  KeptPacks,
  PdfRef,
  type NewObject,
  type PdfDict,
  type PdfUpdate,
  type PdfValue,
} from './objects/index';

/** How many numbers after the file's own are given; beyond that they are given anew, as some have fallen free. */
const MOST_NUMBERS = 500_000;

/** What a page comes to depends on: compared one by one, its annotations likewise. */
export interface PageGiven {
  readonly annotations: PageAnnotations;
  readonly rest: readonly unknown[];
}

/** What a page has come to: the objects that were set, by which keys those have their numbers. */
interface DonePage {
  readonly given: PageGiven;
  readonly objects: readonly NewObject[];
  readonly numbers: readonly (readonly [string, number])[];
  readonly isMore: boolean;
}

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
  private done = new Map<string, DonePage>();
  private numbers: (readonly [string, number])[] = [];

  /** An update is begun: what else it adds gets numbers after those known. */
  begin(update: PdfUpdate): void {
    let last = 0;
    for (const number of this.now.values()) last = Math.max(last, number);
    const isTooFar = last > update.file.size + MOST_NUMBERS;
    this.before = isTooFar ? new Map() : this.now;
    this.now = new Map();
    if (isTooFar) this.done = new Map();
    if (!isTooFar) update.startAfter(last);
  }

  /** The object that something is, by a key of its own: the same as in the export before, or a new one. */
  refFor(update: PdfUpdate, key: string): PdfRef {
    if (this.now.has(key)) return update.reserve();
    const known = this.before.get(key);
    const ref = known === undefined ? update.reserve() : new PdfRef(known, 0);
    this.now.set(key, ref.object);
    this.numbers.push([key, ref.object]);
    return ref;
  }

  /**
   * Does a page (`id`) of an update, or has it as the export before has left it where nothing that it depends on has
   * changed. `work` says whether more than annotations is touched, and whether the page may be had again: whether its
   * objects refer to none but the file's, its own and each other.
   */
  pageOf(
    update: PdfUpdate,
    id: string,
    given: PageGiven,
    work: () => { isMore: boolean; isLasting: boolean },
  ): boolean {
    const known = this.done.get(id);
    if (
      known &&
      isGivenAgain(known.given, given) &&
      !known.numbers.some(([key]) => this.now.has(key))
    ) {
      for (const [key, number] of known.numbers) this.now.set(key, number);
      for (const [ref, value] of known.objects) update.set(ref, value);
      return known.isMore;
    }
    this.numbers = [];
    let came = { isMore: false, isLasting: false };
    const objects = update.noting(() => (came = work()));
    if (came.isLasting)
      this.done.set(id, { given, objects, numbers: this.numbers, isMore: came.isMore });
    else this.done.delete(id);
    return came.isMore;
  }

  /** Forgets pages that are not there any more. */
  keepOnly(ids: ReadonlySet<string>): void {
    for (const id of this.done.keys()) if (!ids.has(id)) this.done.delete(id);
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

function isGivenAgain(before: PageGiven, now: PageGiven): boolean {
  if (!before.rest.every((value, i) => value === now.rest[i])) return false;
  if (before.annotations === now.annotations) return true;
  const ids = Object.keys(now.annotations);
  return (
    ids.length === Object.keys(before.annotations).length &&
    ids.every((id) => before.annotations[id] === now.annotations[id])
  );
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
