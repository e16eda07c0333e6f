import { colorOf, paintingOrder } from '@stylet/core/document';
import type { IndexContents, IndexRow } from './index-rows';

/** Of which pages rows are listed. */
export const pageChoices = ['all', 'annotated', 'bookmarked'] as const;
export type PageChoice = (typeof pageChoices)[number];

/** What of the rows is listed: of some pages, colours, authors, states of a review; empty sets are all. */
export interface IndexRestriction {
  readonly pages: PageChoice;
  readonly colors: ReadonlySet<string>;
  readonly authors: ReadonlySet<string>;
  readonly states: ReadonlySet<string>;
}

export const unrestricted: IndexRestriction = {
  pages: 'all',
  colors: new Set(),
  authors: new Set(),
  states: new Set(),
};

/** What rows can be told by. */
export const facets = ['colors', 'authors', 'states'] as const;
export type FacetName = (typeof facets)[number];

export const isUnrestricted = (restriction: IndexRestriction): boolean =>
  restriction.pages === 'all' && facets.every((facet) => restriction[facet].size === 0);

/** The rows that a restriction lets through. */
export function restrictedTo(
  restriction: IndexRestriction,
  rows: readonly IndexRow[],
  contents: IndexContents,
): readonly IndexRow[] {
  const isOnPage = pageTest(restriction.pages, contents);
  return rows.filter(
    (row) =>
      isOnPage(row.place?.pageId) &&
      facets.every(
        (facet) =>
          restriction[facet].size === 0 ||
          valuesOf[facet](row).some((value) => restriction[facet].has(value)),
      ),
  );
}

function pageTest(
  choice: PageChoice,
  { annotations, landmarks }: IndexContents,
): (pageId: string | undefined) => boolean {
  if (choice === 'all') return () => true;
  const wanted =
    choice === 'annotated'
      ? Object.keys(annotations).filter((id) => paintingOrder(annotations[id]).length > 0)
      : Object.values(landmarks).flatMap((l) => (l.kind === 'bookmark' ? l.place.pageId : []));
  const pages = new Set(wanted);
  return (pageId) => pageId !== undefined && pages.has(pageId);
}

/** A colour or an author, and how many rows have it. */
export interface Facet {
  readonly value: string;
  readonly count: number;
}

/** What rows can be told by, the most frequent first. */
export const facetsOf = (rows: readonly IndexRow[]): Record<FacetName, Facet[]> => ({
  colors: counted(rows.map(colorsOf)),
  authors: counted(rows.map(authorsOf)),
  states: counted(rows.map(statesOf)),
});

function counted(values: readonly (readonly string[])[]): Facet[] {
  const counts = new Map<string, number>();
  for (const of of values) for (const value of of) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1));
}

const colorsOf = ({ annotations, color }: IndexRow): string[] =>
  annotations ? [...new Set(annotations.flatMap((a) => colorOf(a) ?? []))] : color ? [color] : [];

const authorsOf = ({ annotations, thread }: IndexRow): string[] => [
  ...new Set([...(annotations ?? []), ...(thread?.replies ?? [])].map(({ author }) => author)),
];

/** What was said to something is open until its state is set. */
const statesOf = ({ thread }: IndexRow): string[] =>
  thread ? [thread.state?.state ?? 'none', ...(thread.isMarked ? ['marked'] : [])] : [];

const valuesOf: Readonly<Record<FacetName, (row: IndexRow) => string[]>> = {
  colors: colorsOf,
  authors: authorsOf,
  states: statesOf,
};
