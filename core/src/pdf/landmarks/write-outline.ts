import type { Bookmark, Landmarks, OutlineNode, Place } from '../../document/index';
import { outlineTree } from '../../document/index';
import { transform } from '../../geometry/index';
import { rgbOf } from '../../paint/index';
import { Destinations } from '../destinations';
import {
  PdfDict,
  PdfRef,
  name,
  textString,
  type PdfFile,
  type PdfUpdate,
  type PdfValue,
} from '../objects/index';
import { pageToUser, type PdfPage } from '../pages';
import { BOOKMARK, BOOKMARKS } from './own-keys';

/** The pages of a file that is written, in order, by the ids of the document's pages. */
export type PlacedById = ReadonlyMap<string, PdfPage>;

/** An item that is about to be written, with those under it. */
interface Item {
  readonly ref: PdfRef;
  /** Its entries but for those that say where it stands. */
  readonly dict: PdfDict;
  readonly open: boolean;
  readonly children: readonly Item[];
}

/** Entries of an item by which it is linked to others (ISO 32000-1, table 153). */
const LINKS = { Parent: null, Prev: null, Next: null, First: null, Last: null, Count: null };

/**
 * Writes the outline anew (12.3.3): its entries, and the bookmarks, in the order of the pages, in a group
 * of their own at the end. What is kept of an imported entry keeps its object, its look, and, as long as
 * it leads to the same place, how it leads there. Returns what of the catalogue is different then.
 */
export function writeOutline(
  file: PdfFile,
  update: PdfUpdate,
  landmarks: Landmarks,
  inFile: readonly PdfPage[],
  placed: PlacedById,
): Record<string, PdfValue> {
  const writer = new OutlineWriter(file, update, inFile, placed);
  const items = outlineTree(landmarks).map((node) => writer.entry(node));
  const marks = Object.values(landmarks).filter((l): l is Bookmark => l.kind === 'bookmark');
  const group = writer.bookmarks(marks);
  return writer.finish(group ? [...items, group] : items);
}

class OutlineWriter {
  private readonly destinations: Destinations;

  constructor(
    private readonly file: PdfFile,
    private readonly update: PdfUpdate,
    private readonly inFile: readonly PdfPage[],
    private readonly placed: PlacedById,
  ) {
    this.destinations = new Destinations(file, inFile);
  }

  entry({ entry, children }: OutlineNode): Item {
    const { origin, title, open, place } = entry;
    const ref = origin ? new PdfRef(origin.object, origin.generation) : this.update.reserve();
    const before = (origin && this.file.dict(ref)) ?? new PdfDict();
    return {
      ref,
      dict: before.with({
        ...LINKS,
        Title: textString(title),
        ...(this.leadsTo(before, place) ? {} : { A: null, Dest: this.destination(place) }),
      }),
      open,
      children: children.map((child) => this.entry(child)),
    };
  }

  bookmarks(marks: readonly Bookmark[]): Item | undefined {
    const positions = new Map([...this.placed.keys()].map((id, i) => [id, i]));
    const position = ({ place }: Bookmark): number => positions.get(place.pageId) ?? Infinity;
    const sorted = [...marks].sort(
      (a, b) => position(a) - position(b) || (a.place.y ?? 0) - (b.place.y ?? 0),
    );
    if (sorted.length === 0) return undefined;
    return {
      ref: this.update.reserve(),
      dict: PdfDict.of({ Title: textString('Bookmarks'), [BOOKMARKS]: true }),
      open: false,
      children: sorted.map(({ id, title, place, color, created }) => ({
        ref: this.update.reserve(),
        dict: PdfDict.of({
          Title: textString(title),
          Dest: this.destination(place),
          C: color ? [...rgbOf(color)] : undefined,
          [BOOKMARK]: PdfDict.of({ ID: textString(id), Created: textString(created) }),
        }),
        open: false,
        children: [],
      })),
    };
  }

  /** Writes the items; returns how the catalogue names them. No outline where there are none. */
  finish(items: readonly Item[]): Record<string, PdfValue> {
    const before = this.file.catalog.get('Outlines');
    if (items.length === 0) return before === null ? {} : { Outlines: null };
    const ref = before instanceof PdfRef ? before : this.update.reserve();
    this.update.set(
      ref,
      PdfDict.of({
        Type: name('Outlines'),
        First: items[0].ref,
        Last: items[items.length - 1].ref,
        Count: shown(items),
      }),
    );
    this.link(items, ref);
    return ref === before ? {} : { Outlines: ref };
  }

  private link(items: readonly Item[], parent: PdfRef): void {
    items.forEach(({ ref, dict, open, children }, i) => {
      const links: Record<string, PdfValue> = { Parent: parent };
      if (i > 0) links['Prev'] = items[i - 1].ref;
      if (i + 1 < items.length) links['Next'] = items[i + 1].ref;
      if (children.length > 0) {
        links['First'] = children[0].ref;
        links['Last'] = children[children.length - 1].ref;
        links['Count'] = open ? shown(children) : -shown(children);
      }
      this.update.set(ref, dict.with(links));
      this.link(children, ref);
    });
  }

  private leadsTo(item: PdfDict, place: Place | undefined): boolean {
    const now = this.destinations.of(item);
    if (!place || !now) return !place && !now;
    const isNear = (a: number | undefined, b: number | undefined): boolean =>
      a === b || (a !== undefined && b !== undefined && Math.abs(a - b) < 0.01);
    return (
      this.placed.get(place.pageId)?.ref.object === this.inFile[now.pageIndex].ref.object &&
      isNear(place.x, now.x) &&
      isNear(place.y, now.y)
    );
  }

  /** An explicit destination (12.3.2.2); nothing for a page that is not there any more. */
  private destination(place: Place | undefined): PdfValue {
    return place ? explicitDestination(place, this.placed) : null;
  }
}

/** Items that show when an item above them is open: they, and what is open under them. */
function shown(items: readonly Item[]): number {
  return items.reduce((sum, { open, children }) => sum + 1 + (open ? shown(children) : 0), 0);
}

/** A place as an explicit destination: the page, and its top left as it is seen (12.3.2.2). */
export function explicitDestination({ pageId, x, y }: Place, placed: PlacedById): PdfValue {
  const page = placed.get(pageId);
  if (!page) return null;
  const at = transform(pageToUser(page.box), { x: x ?? 0, y: y ?? 0 });
  const rounded = (value: number): number => Math.round(value * 100) / 100;
  return [page.ref, name('XYZ'), x === undefined ? null : rounded(at.x), rounded(at.y), null];
}
