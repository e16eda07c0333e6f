import type { DocumentSummary } from '@stylet/core/api';

/** An order of the library. */
export interface Sorting {
  readonly key: string;
  readonly label: string;
  readonly compare: (a: DocumentSummary, b: DocumentSummary) => number;
}

export const sortings: readonly Sorting[] = [
  {
    key: 'changed',
    label: 'Changed, newest first',
    compare: (a, b) => b.modified.localeCompare(a.modified),
  },
  {
    key: 'added',
    label: 'Brought in, newest first',
    compare: (a, b) => b.created.localeCompare(a.created),
  },
  {
    key: 'title',
    label: 'Title',
    compare: (a, b) => a.title.localeCompare(b.title, undefined, { numeric: true }),
  },
];

/** The documents in an order; the list itself is left alone. */
export function sortDocuments(
  documents: readonly DocumentSummary[],
  sorting: Sorting,
): DocumentSummary[] {
  return [...documents].sort(sorting.compare);
}

/** A date the way people speak of it: `today`, `yesterday`, a weekday, else day and month. */
export function spokenDate(instant: string, now: Date): string {
  const date = new Date(instant);
  const midnight = (d: Date): number =>
    new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((midnight(now) - midnight(date)) / 86_400_000);
  if (days <= 0) return 'today';
  if (days === 1) return 'yesterday';
  if (days < 7) return date.toLocaleDateString('en', { weekday: 'long' });
  const year = date.getFullYear() === now.getFullYear() ? {} : { year: 'numeric' as const };
  return date.toLocaleDateString('en', { day: 'numeric', month: 'long', ...year });
}
