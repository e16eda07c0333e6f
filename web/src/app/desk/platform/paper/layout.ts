import type { Page } from '@stylet/core/api';
import { shownSize } from './page-geometry';

/** CSS pixels a point at 100 %: true size on a screen of 96 pixels to the inch. */
export const PIXELS_PER_POINT = 96 / 72;
export const SMALLEST_ZOOM = 0.1;
export const LARGEST_ZOOM = 8;
/** Below this zoom pages fill the width of the view, if at least so many fit beside each other. */
const OVERVIEW = 0.3;
const MANY = 3;
/** Room between pages and round them, in pixels. */
export const GAP = 20;

/**
 * How pages lie: one below the other, one beside the other, two side by side (the first alone, as a cover, or
 * not), four or nine in view at a time, or as many beside each other as fit.
 */
export const arrangements = [
  'one',
  'across',
  'two',
  'twoAfterCover',
  'four',
  'nine',
  'fitting',
] as const;
export type Arrangement = (typeof arrangements)[number];

/** Pages in a row, where that is given. */
const ACROSS: Record<Exclude<Arrangement, 'fitting'>, number> = {
  one: 1,
  across: Infinity,
  two: 2,
  twoAfterCover: 2,
  four: 2,
  nine: 3,
};
/** Rows that are in view together. */
export const rowsTogether = (arrangement: Arrangement): number =>
  ({ four: 2, nine: 3 })[arrangement as string] ?? 1;

/** Where a page is shown among all pages, in CSS pixels. */
export interface Placed {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Pages beside each other: the indexes of the first and the last, and where the row begins. */
interface Row {
  readonly first: number;
  readonly last: number;
  readonly top: number;
}

/** All pages, in rows one below the other; in a single row where one scrolls across. */
export interface Layout {
  readonly isAcross: boolean;
  readonly zoom: number;
  readonly pages: readonly Placed[];
  readonly rows: readonly Row[];
  readonly width: number;
  readonly height: number;
}

/** Whether the width of the view matters for how pages lie. */
export const needsRoom = (zoom: number, arrangement: Arrangement): boolean =>
  arrangement === 'fitting' ||
  (zoom < OVERVIEW && arrangement !== 'across' && rowsTogether(arrangement) === 1);

/** Lays pages out; `room` is the width of the view, 0 where it does not matter (`needsRoom`). */
export function layOut(
  pages: readonly Page[],
  zoom: number,
  arrangement: Arrangement = 'one',
  room = 0,
): Layout {
  const scale = zoom * PIXELS_PER_POINT;
  const sizes = pages.map((page) => {
    const { width, height } = shownSize(page);
    return { width: width * scale, height: height * scale };
  });
  const grouped = rowsOf(sizes, arrangement, room);
  const widths = grouped.map(({ first, last }) => widthOf(sizes, first, last));
  const width = widths.reduce((most, one) => Math.max(most, one), 0);
  const placed: Placed[] = [];
  const rows: Row[] = [];
  let top = GAP;
  grouped.forEach(({ first, last }, row) => {
    // A full row is in the middle; a last one that is not full begins where the first does.
    const isShort = room > 0 && row > 0 && row === grouped.length - 1;
    const own = isShort ? Math.max(widths[0], widths[row]) : widths[row];
    let left = GAP + (width - own) / 2;
    let height = 0;
    for (let i = first; i <= last; i++) {
      placed.push({ left, top, width: sizes[i].width, height: sizes[i].height });
      left += sizes[i].width + GAP;
      height = Math.max(height, sizes[i].height);
    }
    rows.push({ first, last, top });
    top += height + GAP;
  });
  const isAcross = arrangement === 'across';
  const places = isAcross ? inTheMiddle(placed, top) : placed;
  return { isAcross, zoom, pages: places, rows, width: width + 2 * GAP, height: top };
}

/** Where one scrolls across, pages lie in the middle of the height of them all. */
const inTheMiddle = (pages: readonly Placed[], height: number): Placed[] =>
  pages.map((page) => Object.assign({}, page, { top: (height - page.height) / 2 }));

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Which pages stand beside each other. */
function rowsOf(
  sizes: readonly Size[],
  arrangement: Arrangement,
  room: number,
): { first: number; last: number }[] {
  const across = acrossIn(sizes, arrangement, room);
  const hasCover = arrangement === 'twoAfterCover' && across === 2;
  const rows: { first: number; last: number }[] = [];
  let first = 0;
  while (first < sizes.length) {
    const count = first === 0 && hasCover ? 1 : across;
    const last = Math.min(sizes.length, first + count) - 1;
    rows.push({ first, last });
    first = last + 1;
  }
  return rows;
}

function acrossIn(sizes: readonly Size[], arrangement: Arrangement, room: number): number {
  const usual = arrangement === 'fitting' ? 1 : ACROSS[arrangement];
  if (room === 0) return usual;
  const widest = sizes.reduce((most, { width }) => Math.max(most, width), 1);
  const fitting = Math.max(1, Math.floor((room - GAP) / (widest + GAP)));
  if (arrangement === 'fitting') return fitting;
  // Those that belong side by side stay so.
  return fitting < MANY ? usual : usual * Math.max(1, Math.floor(fitting / usual));
}

/** Of pages beside each other, with the gaps between them. */
function widthOf(sizes: readonly Size[], first: number, last: number): number {
  let width = (last - first) * GAP;
  for (let i = first; i <= last; i++) width += sizes[i].width;
  return width;
}

/** How far the pages stand in from the left of what scrolls, which is never narrower than the view. */
export const insetOf = ({ width }: Layout, room: number): number => Math.max(0, room - width) / 2;

/** The last row that starts at or above `y`; the first before that. */
function rowAt({ rows }: Layout, y: number): Row | undefined {
  let low = 0;
  let high = rows.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (rows[middle].top <= y) low = middle;
    else high = middle - 1;
  }
  return rows[low];
}

/** The page at a height, the first of its row; with `x` the last of the row that begins at or before that. */
export function pageAt(layout: Layout, y: number, x = -Infinity): number {
  const row = rowAt(layout, y);
  if (!row) return 0;
  let page = row.first;
  while (page < row.last && layout.pages[page + 1].left <= x) page++;
  return page;
}

/** A part of what is laid out, in CSS pixels. */
export interface Part {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Indexes of the pages of a part, and so far before and after it: first and last, both included. */
export function pagesIn(layout: Layout, part: Part, around: number): [number, number] {
  if (layout.isAcross)
    return [
      pageAt(layout, 0, part.left - around),
      pageAt(layout, 0, part.left + part.width + around),
    ];
  return [
    pageAt(layout, part.top - around),
    pageAt(layout, part.top + part.height + around, Infinity),
  ];
}

/** The page one looks at in a part: at its upper third, or, where one scrolls across, in its middle. */
export const pageLookedAt = (layout: Layout, part: Part): number =>
  layout.isAcross
    ? pageAt(layout, 0, part.left + part.width / 2)
    : pageAt(layout, part.top + part.height / 3);

export const clampZoom = (zoom: number): number =>
  Math.min(LARGEST_ZOOM, Math.max(SMALLEST_ZOOM, zoom));

/** The zoom at which the widest row fills the width, or the page in view the height, or both fit. */
export function fittingZoom(
  pages: readonly Page[],
  current: number,
  view: { width: number; height: number },
  fit: 'width' | 'height' | 'page',
  arrangement: Arrangement = 'one',
): number {
  const sizes = pages.map(shownSize);
  const isFree = arrangement === 'fitting' || arrangement === 'across';
  const rows = rowsOf(sizes, isFree ? 'one' : arrangement, 0);
  const concerned =
    fit === 'page' ? rows.filter(({ first, last }) => first <= current && current <= last) : rows;
  const zooms = concerned.map(({ first, last }) => {
    const between = (last - first) * GAP;
    const points = widthOf(sizes, first, last) - between;
    return (view.width - between - 2 * GAP) / (points * PIXELS_PER_POINT);
  });
  const byWidth = zooms.reduce((least, zoom) => Math.min(least, zoom), Infinity);
  const high = rowsTogether(arrangement);
  const byHeight =
    (view.height - (high + 1) * GAP) / (high * sizes[current].height * PIXELS_PER_POINT);
  if (fit === 'width') return clampZoom(byWidth);
  if (fit === 'page' && high > 1) return clampZoom(togetherZoom(sizes, rows, current, view, high));
  return clampZoom(fit === 'height' ? byHeight : Math.min(byWidth, byHeight));
}

/** A row that is so much larger than those in view does not make them smaller still. */
const LARGEST_ROW = 2;

/** The zoom at which so many rows are in view together, wherever one is: pages may be turned, and of any size. */
function togetherZoom(
  sizes: readonly Size[],
  rows: readonly { first: number; last: number }[],
  current: number,
  view: Size,
  high: number,
): number {
  const fits = rows.map((_, from) => {
    const together = rows.slice(from, from + high);
    const between = Math.max(...together.map(({ first, last }) => (last - first) * GAP));
    const width = Math.max(
      ...together.map(({ first, last }) => widthOf(sizes, first, last) - (last - first) * GAP),
    );
    const height = together.reduce((sum, { first, last }) => {
      const heights = sizes.slice(first, last + 1).map((size) => size.height);
      return sum + Math.max(...heights);
    }, 0);
    const zoom = Math.min(
      (view.width - between - 2 * GAP) / width,
      (view.height - (high + 1) * GAP) / height,
    );
    return zoom / PIXELS_PER_POINT;
  });
  const here = fits[rows.findIndex(({ first, last }) => first <= current && current <= last)];
  return Math.max(Math.min(...fits), here / LARGEST_ROW);
}

/** The page a label or a number means: labels first, as printed; undefined for neither. */
export function findPage(pages: readonly Page[], wanted: string): number | undefined {
  const text = wanted.trim();
  if (text === '') return undefined;
  const exact = pages.findIndex(({ label }) => label === text);
  if (exact >= 0) return exact;
  const folded = pages.findIndex(({ label }) => label.toLowerCase() === text.toLowerCase());
  if (folded >= 0) return folded;
  const number = /^\d+$/.test(text) ? Number(text) : NaN;
  return number >= 1 && number <= pages.length ? number - 1 : undefined;
}
