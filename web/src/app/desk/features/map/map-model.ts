import type { Box } from '@stylet/core/geometry';
import type { Page } from '@stylet/core/api';
import {
  noAnnotations,
  paintingOrder,
  sortOf,
  type AnnotationSort,
  type Landmarks,
  type OutlineNode,
  type PageAnnotations,
  type Place,
} from '@stylet/core/document';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { shownSize } from '../../platform/paper/page-geometry';

/** Into so many parts of a page goes what is on it, where that is not known yet. */
const SPREAD = 4;

/** A document from top to bottom, as shares of its height: where pages begin, and where the last ends. */
export interface MapScale {
  readonly tops: readonly number[];
  readonly pages: readonly Page[];
}

export function mapScale(pages: readonly Page[]): MapScale {
  const heights = pages.map((page) => shownSize(page).height);
  const total = heights.reduce((sum, height) => sum + height, 0) || 1;
  const tops = [0];
  for (const height of heights) tops.push(tops[tops.length - 1] + height / total);
  return { tops, pages };
}

/** How far down the document a place on a page is; `share` is how far down the page. */
export function downTo({ tops }: MapScale, pageIndex: number, share: number): number {
  const [top, bottom] = [tops[pageIndex], tops[pageIndex + 1]];
  return top + (bottom - top) * share;
}

/** The page at a share of the document's height, and how far down it. */
export function pageAtShare({ tops }: MapScale, at: number): { pageIndex: number; share: number } {
  const last = tops.length - 2;
  let [low, high] = [0, Math.max(0, last)];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (tops[middle] <= at) low = middle;
    else high = middle - 1;
  }
  const height = tops[low + 1] - tops[low];
  return { pageIndex: low, share: Math.min(1, Math.max(0, (at - tops[low]) / height)) };
}

/** A chapter: an entry at the top of the outline, and how far it goes. */
export interface Chapter {
  readonly title: string;
  readonly from: number;
  readonly to: number;
}

/** The chapters of a document, in order; what comes before the first has none. */
export function chaptersOf(scale: MapScale, tree: readonly OutlineNode[]): Chapter[] {
  const indexes = indexesOf(scale);
  const starts = tree
    .flatMap(({ entry }) => {
      const at = entry.place && downAt(scale, indexes, entry.place);
      return at === undefined ? [] : [{ title: entry.title, from: at }];
    })
    .sort((a, b) => a.from - b.from);
  return starts.map((start, i) => ({ ...start, to: starts[i + 1]?.from ?? 1 }));
}

/** Marks on the map: how far down, and of what colour, if of one of their own. */
export function bookmarksOn(
  scale: MapScale,
  landmarks: Landmarks,
): { readonly at: number; readonly color: string | undefined }[] {
  const indexes = indexesOf(scale);
  return Object.values(landmarks).flatMap((landmark) => {
    if (landmark.kind !== 'bookmark') return [];
    const at = downAt(scale, indexes, landmark.place);
    return at === undefined ? [] : [{ at, color: landmark.color }];
  });
}

/**
 * How much of each sort lies in each of so many bands of a document, in annotations. What is on unread pages counts as
 * ink, all over them: most of it mostly is.
 */
export function densityOf(
  scale: MapScale,
  annotations: Readonly<Record<string, PageAnnotations>>,
  unread: ReadonlyMap<string, number>,
  bands: number,
): Map<AnnotationSort, Float32Array> {
  const density = new Map<AnnotationSort, Float32Array>();
  const add = (sort: AnnotationSort, at: number, count: number): void => {
    let counts = density.get(sort);
    if (!counts) density.set(sort, (counts = new Float32Array(bands)));
    counts[Math.min(bands - 1, Math.floor(at * bands))] += count;
  };
  scale.pages.forEach((page, pageIndex) => {
    const { height } = shownSize(page);
    for (const annotation of paintingOrder(annotations[page.id] ?? noAnnotations)) {
      const box = boundsOfAnnotation(annotation);
      const share = box && page.rotation === 0 ? (box.y0 + box.y1) / 2 / height : 0.5;
      const at = downTo(scale, pageIndex, Math.min(1, Math.max(0, share)));
      add(sortOf(annotation), at, 1);
    }
    const count = unread.get(page.id);
    if (count)
      for (let i = 0; i < SPREAD; i++)
        add('ink', downTo(scale, pageIndex, (i + 0.5) / SPREAD), count / SPREAD);
  });
  return density;
}

/** How far down the document things lie that are at boxes of pages. */
export function hitsOn(
  scale: MapScale,
  hits: readonly { readonly pageIndex: number; readonly boxes: readonly Box[] }[],
): number[] {
  return hits.map(({ pageIndex, boxes: [box] }) => {
    const page = scale.pages[pageIndex];
    const { height } = shownSize(page);
    const share = box && page.rotation === 0 ? (box.y0 + box.y1) / 2 / height : 0.5;
    return downTo(scale, pageIndex, Math.min(1, Math.max(0, share)));
  });
}

const indexesOf = ({ pages }: MapScale): Map<string, number> =>
  new Map(pages.map(({ id }, i) => [id, i]));

function downAt(
  scale: MapScale,
  indexes: ReadonlyMap<string, number>,
  { pageId, y }: Place,
): number | undefined {
  const pageIndex = indexes.get(pageId);
  if (pageIndex === undefined) return undefined;
  const page = scale.pages[pageIndex];
  const share = page.rotation === 0 ? (y ?? 0) / page.height : 0;
  return downTo(scale, pageIndex, Math.min(1, Math.max(0, share)));
}
