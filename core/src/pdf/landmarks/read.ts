import { boundedCoordinate } from '../../bounds/index';
import { generateNKeysBetween } from 'fractional-indexing';
import { landmarkSchema, type Bookmark, type Ids, type Landmark } from '../../document/index';
import { hexOf } from '../../paint/index';
import { textOf, type PdfFile } from '../objects/index';
import { numbersOf } from '../annotations/entries';
import type { Destination } from '../destinations';
import type { OutlineItem } from '../outline';
import type { Cleaning } from '../storable';
import { BOOKMARK, BOOKMARKS } from './own-keys';

/** When landmarks are read, and what those that have none get for ids. */
interface ReadingLandmarks {
  /** An ISO 8601 instant, for what has no date in the file. */
  readonly now: string;
  readonly clean: Cleaning;
  readonly ids: Ids;
}

/** The outline of a file as landmarks, with the bookmarks Stylet wrote into it. `pageIds` in order. */
export function landmarksOf(
  file: PdfFile,
  items: readonly OutlineItem[],
  pageIds: readonly string[],
  reading: ReadingLandmarks,
): Landmark[] {
  const { clean, ids } = reading;
  const placeOf = ({ pageIndex, x, y }: Destination) => ({
    pageId: pageIds[pageIndex],
    ...(x === undefined ? {} : { x: boundedCoordinate(x) }),
    ...(y === undefined ? {} : { y: boundedCoordinate(y) }),
  });
  const found: Landmark[] = [];
  const enter = (siblings: readonly OutlineItem[], parentId: string | undefined): void => {
    const own = siblings.filter(({ dict }) => dict.get(BOOKMARKS) === null);
    const orders = generateNKeysBetween(null, null, own.length);
    own.forEach(({ title, destination, open, children, ref }, i) => {
      const id = ids('landmark');
      found.push({
        kind: 'outline',
        id,
        ...(parentId === undefined ? {} : { parentId }),
        order: orders[i],
        title: clean.text(title, 2000),
        ...(destination ? { place: placeOf(destination) } : {}),
        open,
        ...(ref ? { origin: { object: ref.object, generation: ref.generation } } : {}),
      });
      enter(children, id);
    });
    for (const group of siblings.filter((item) => !own.includes(item)))
      for (const item of group.children) {
        if (!item.destination) continue;
        found.push(bookmarkOf(file, item, placeOf(item.destination), reading));
      }
  };
  enter(items, undefined);
  return found;
}

/** A bookmark as it was, or, where another program has changed it, as it stands. */
function bookmarkOf(
  file: PdfFile,
  { title, dict }: OutlineItem,
  place: Bookmark['place'],
  { now, clean, ids }: ReadingLandmarks,
): Landmark {
  const own = file.dict(dict.get(BOOKMARK));
  const rgb = numbersOf(file, dict.get('C'));
  const bookmark = {
    kind: 'bookmark' as const,
    place,
    title: clean.text(title, 300),
    ...(rgb.length === 3 ? { color: hexOf(rgb[0], rgb[1], rgb[2]) } : {}),
  };
  const kept = landmarkSchema.safeParse({
    ...bookmark,
    id: textOf(file.resolve(own?.get('ID') ?? null)),
    created: textOf(file.resolve(own?.get('Created') ?? null)),
  });
  return kept.success ? kept.data : { ...bookmark, id: ids('landmark'), created: now };
}
