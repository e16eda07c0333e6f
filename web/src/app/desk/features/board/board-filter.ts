import type { Page } from '@stylet/core/api';
import type { DocumentState, Landmarks } from '@stylet/core/document';

/** Which pages the board shows. */
export const boardFilters = ['all', 'annotated', 'bookmarked', 'keywords', 'found'] as const;
export type BoardFilter = (typeof boardFilters)[number];

export const filterWords: Record<BoardFilter, string> = {
  all: 'All',
  annotated: 'Annotated',
  bookmarked: 'Bookmarked',
  keywords: 'With keywords',
  found: 'Found',
};

/** The pages, by their ids, that each filter shows; `all` shows any. */
export type PagesBySort = Record<Exclude<BoardFilter, 'all'>, ReadonlySet<string>>;

export function sortPages(
  annotations: DocumentState['annotations'],
  landmarks: Landmarks,
  found: ReadonlySet<string>,
): PagesBySort {
  const on = (kind: 'bookmark' | 'keyword'): Set<string> =>
    new Set(
      Object.values(landmarks).flatMap((landmark) =>
        landmark.kind === kind ? [landmark.place.pageId] : [],
      ),
    );
  const annotated = Object.entries(annotations).filter(([, page]) =>
    Object.values(page).some(({ kind }) => kind !== 'link'),
  );
  return {
    annotated: new Set(annotated.map(([pageId]) => pageId)),
    bookmarked: on('bookmark'),
    keywords: on('keyword'),
    found,
  };
}

export const filtered = (
  pages: readonly Page[],
  filter: BoardFilter,
  sorts: PagesBySort,
): readonly Page[] => (filter === 'all' ? pages : pages.filter(({ id }) => sorts[filter].has(id)));
