import type { DocumentSummary } from '@stylet/core/api';
import { sortDocuments, sortings, spokenDate } from './sorting';

const now = new Date(2026, 8, 16, 12);
const days = (n: number): string => new Date(2026, 8, 16 - n, 9).toISOString();

test.each([
  [0, 'today'],
  [1, 'yesterday'],
  [2, 'Monday'],
  [6, 'Thursday'],
  [8, 'September 8'],
  [400, 'August 12, 2025'],
])('%i days ago is “%s”', (n, words) => {
  expect(spokenDate(days(n), now)).toBe(words);
});

test('orders', () => {
  const document = (title: string, modified: string): DocumentSummary =>
    ({ title, modified, created: modified }) as DocumentSummary;
  const list = [
    document('Week 10', '2026-01-01'),
    document('Week 9', '2026-01-03'),
    document('Almanac', '2026-01-02'),
  ];
  expect(sortDocuments(list, sortings[0]).map((d) => d.title)).toEqual([
    'Week 9',
    'Almanac',
    'Week 10',
  ]);
  expect(sortDocuments(list, sortings[2]).map((d) => d.title)).toEqual([
    'Almanac',
    'Week 9',
    'Week 10',
  ]);
});
