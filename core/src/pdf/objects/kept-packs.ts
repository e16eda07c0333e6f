import { packed } from './object-streams';
import { WrittenObject, writtenStream, type Deflate } from './store';
import type { PdfValue } from './values';

/** An object by its number. */
export type Numbered = readonly [number, PdfValue | WrittenObject];

/** Objects in one stream at the most: more compress better, fewer are found sooner. */
const TOGETHER = 400;
/** How many numbers of objects that a file has had, and of new ones, are for one stream; those are seldom all taken. */
const OF_FILE = 2048;
const ADDED = 400;

interface Pack {
  readonly objects: readonly Numbered[];
  readonly stream: WrittenObject;
}

/**
 * Object streams (ISO 32000-1, 7.5.7) of one update of a file, kept for the next one: the same objects are neither put
 * together nor compressed again. Which objects go together is told by their numbers alone, so that what is added or
 * changed somewhere leaves all other streams as they were.
 */
export class KeptPacks {
  private kept = new Map<number, Pack>();

  /** Packs objects, in the order of their numbers; `size` numbers were the file's before. */
  pack(objects: readonly Numbered[], size: number, deflate: Deflate): readonly Pack[] {
    const packs = grouped(objects, size).map((group) => this.packOf(group, deflate));
    // What is not needed any more goes.
    this.kept = new Map(packs.map((pack) => [pack.objects[0][0], pack]));
    return packs;
  }

  private packOf(objects: readonly Numbered[], deflate: Deflate): Pack {
    const known = this.kept.get(objects[0][0]);
    if (known && isSame(known.objects, objects)) return known;
    const { dict, bytes } = packed(objects);
    return { objects, stream: new WrittenObject([writtenStream(dict, bytes, deflate)]) };
  }
}

const isSame = (a: readonly Numbered[], b: readonly Numbered[]): boolean =>
  a.length === b.length && a.every(([number, value], i) => number === b[i][0] && value === b[i][1]);

function grouped(objects: readonly Numbered[], size: number): Numbered[][] {
  const groups: Numbered[][] = [];
  let last: number | undefined;
  for (const one of objects) {
    const [number] = one;
    const range =
      number < size ? -1 - Math.floor(number / OF_FILE) : Math.floor((number - size) / ADDED);
    if (range === last && groups[groups.length - 1].length < TOGETHER)
      groups[groups.length - 1].push(one);
    else groups.push([one]);
    last = range;
  }
  return groups;
}
