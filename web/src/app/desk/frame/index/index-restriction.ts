import { paintingOrder } from '@stylet/core/document';
import type { IndexContents, IndexRow } from './index-rows';

/** Of which pages rows are listed. */
export const pageChoices = ['all', 'annotated', 'bookmarked'] as const;
export type PageChoice = (typeof pageChoices)[number];

/** What of the rows is listed: of some pages, of some colours, by some authors; empty sets are all. */
export interface IndexRestriction {
  readonly pages: PageChoice;
  readonly colors: ReadonlySet<string>;
  readonly authors: ReadonlySet<string>;
}

export const unrestricted: IndexRestriction = {
  pages: 'all',
  colors: new Set(),
  authors: new Set(),
};

export const isUnrestricted = ({ pages, colors, authors }: IndexRestriction): boolean =>
  pages === 'all' && colors.size === 0 && authors.size === 0;

/** The rows that a restriction lets through. */
export function restrictedTo(
  { pages, colors, authors }: IndexRestriction,
  rows: readonly IndexRow[],
  contents: IndexContents,
): readonly IndexRow[] {
  const isOnPage = pageTest(pages, contents);
  return rows.filter(
    (row) =>
      isOnPage(row.place?.pageId) &&
      (colors.size === 0 || colorsOf(row).some((color) => colors.has(color))) &&
      (authors.size === 0 || authorsOf(row).some((author) => authors.has(author))),
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

/** The colours and authors of rows, the most frequent first. */
export function facetsOf(rows: readonly IndexRow[]): { colors: Facet[]; authors: Facet[] } {
  return { colors: counted(rows.map(colorsOf)), authors: counted(rows.map(authorsOf)) };
}

function counted(values: readonly (readonly string[])[]): Facet[] {
  const counts = new Map<string, number>();
  for (const of of values) for (const value of of) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts]
    .map(([value, count]) => ({ value, count }))
    .sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1));
}

const colorsOf = ({ annotations, color }: IndexRow): string[] =>
  annotations
    ? [...new Set(annotations.flatMap((a) => ('color' in a && a.color ? [a.color] : [])))]
    : color
      ? [color]
      : [];

const authorsOf = ({ annotations }: IndexRow): string[] => [
  ...new Set((annotations ?? []).map(({ author }) => author)),
];
