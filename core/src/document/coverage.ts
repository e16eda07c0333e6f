import type { Landmarks } from './landmark';
import type { OutlineNode } from './outline-tree';
import { noAnnotations, paintingOrder, type PageAnnotations } from './state';

/** What has been done with a page; `seen` is when it was last looked at (ISO 8601). */
export interface PageCoverage {
  readonly pageId: string;
  readonly pageIndex: number;
  readonly label: string;
  readonly seen: string | undefined;
  readonly annotations: number;
  readonly isBookmarked: boolean;
}

/** How many of some pages have been seen, annotated, bookmarked; when last, if ever. */
export interface CoverageCounts {
  readonly seen: number;
  readonly annotated: number;
  readonly bookmarked: number;
  readonly last: string | undefined;
}

/** A chapter's pages; one that begins on a page where another ends shares that page with it. */
export interface ChapterCoverage extends CoverageCounts {
  readonly title: string;
  readonly pages: readonly PageCoverage[];
}

export interface Coverage extends CoverageCounts {
  readonly pages: readonly PageCoverage[];
  readonly chapters: readonly ChapterCoverage[];
}

/**
 * What has been done with a document, by the chapters at the top of its outline. Pages before the first are a
 * chapter without a title, and so is a document without an outline. `seen` maps pages to when they were last
 * looked at.
 */
export function coverageOf(
  document: readonly { readonly id: string; readonly label: string }[],
  tree: readonly OutlineNode[],
  landmarks: Landmarks,
  annotations: Readonly<Record<string, PageAnnotations>>,
  seen: ReadonlyMap<string, string>,
): Coverage {
  const bookmarked = new Set(
    Object.values(landmarks).flatMap((l) => (l.kind === 'bookmark' ? l.place.pageId : [])),
  );
  const pages = document.map(({ id, label }, pageIndex): PageCoverage => ({
    pageId: id,
    pageIndex,
    label,
    seen: seen.get(id),
    annotations: paintingOrder(annotations[id] ?? noAnnotations).length,
    isBookmarked: bookmarked.has(id),
  }));
  const indexes = new Map(document.map(({ id }, i) => [id, i]));
  const starts = tree
    .flatMap(({ entry }) => {
      const from = entry.place && indexes.get(entry.place.pageId);
      return from === undefined ? [] : [{ title: entry.title, from }];
    })
    .sort((a, b) => a.from - b.from);
  if (pages.length > 0 && starts[0]?.from !== 0) starts.unshift({ title: '', from: 0 });
  const chapters = starts.map(({ title, from }, i): ChapterCoverage => {
    const next = starts[i + 1]?.from ?? pages.length;
    const own = pages.slice(from, Math.max(from + 1, next));
    return { title, pages: own, ...countsOf(own) };
  });
  return { pages, chapters, ...countsOf(pages) };
}

function countsOf(pages: readonly PageCoverage[]): CoverageCounts {
  return {
    seen: pages.filter(({ seen }) => seen !== undefined).length,
    annotated: pages.filter(({ annotations }) => annotations > 0).length,
    bookmarked: pages.filter(({ isBookmarked }) => isBookmarked).length,
    last: pages.reduce<string | undefined>(
      (last, { seen }) => (seen !== undefined && (last === undefined || seen > last) ? seen : last),
      undefined,
    ),
  };
}
