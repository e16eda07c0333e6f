import type { LibrarySorting } from '@stylet/core/api';

/** Orders of the library, and what they are called. */
export const sortings: readonly { readonly key: LibrarySorting; readonly label: string }[] = [
  { key: 'changed', label: 'Changed, newest first' },
  { key: 'added', label: 'Brought in, newest first' },
  { key: 'title', label: 'Title' },
];

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
