import { spokenDate } from './sorting';

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
