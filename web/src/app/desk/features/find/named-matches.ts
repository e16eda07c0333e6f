import type { Page } from '@stylet/core/api';
import type { Annotation, Landmark } from '@stylet/core/document';
import {
  matchAt,
  namedAmong,
  searchableText,
  termPlaces,
  type FindQuery,
  type Named,
} from '@stylet/core/find';
import type { MatchOnPage } from './found-in-document';

/** Matches of a page's words are numbered from 0; what is named there comes after them. */
const AFTER_WORDS = 1_000_000;

/** What is found in an outline, bookmarks, keywords, annotations and links that were made here, by page. */
export function namedMatches(
  query: FindQuery,
  pages: readonly Page[],
  landmarks: readonly Landmark[],
  annotations: readonly Annotation[],
): Map<string, MatchOnPage[]> {
  const there = new Set(pages.map(({ id }) => id));
  const found = new Map<string, MatchOnPage[]>();
  for (const named of namedAmong(landmarks, annotations)) {
    const pageId = named.place?.pageId;
    if (pageId === undefined || !there.has(pageId)) continue;
    const here = found.get(pageId) ?? [];
    const match = matchIn(named, query, pageId, AFTER_WORDS + here.length);
    if (match) found.set(pageId, [...here, match]);
  }
  return found;
}

function matchIn(
  { kind, place, text }: Named,
  query: FindQuery,
  pageId: string,
  at: number,
): MatchOnPage | undefined {
  const named = searchableText(text, query.options.keepsCase);
  const places = termPlaces(named, query);
  if (!places) return undefined;
  const { before, match, after } = matchAt(named, places[0][0]);
  const [x, y] = [place?.x ?? 0, place?.y ?? 0];
  const boxes = place?.y === undefined ? [] : [{ x0: x, y0: y, x1: x, y1: y }];
  return { kind, pageId, at, before, match, after, boxes };
}
