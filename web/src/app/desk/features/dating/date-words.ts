import type { DatingSettings } from './settings';

/**
 * The date as it is written on a page (ISO 8601, 5.2.2.1 and 5.3.1.1: year, month and day; hours and minutes), as the clock here
 * shows it. `page`: what the page is called, where that is a number.
 */
export function dateWords(now: Date, page: string, { with: also }: DatingSettings): string {
  const two = (value: number): string => String(value).padStart(2, '0');
  const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  if (also === 'time') return `${day} ${two(now.getHours())}:${two(now.getMinutes())}`;
  return also === 'page' ? `${day} p. ${page}` : day;
}
