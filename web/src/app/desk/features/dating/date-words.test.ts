import { dateWords } from './date-words';

const noon = new Date(2026, 2, 5, 9, 7);

// ISO 8601-1:2019, 5.2.2.1: calendar dates in extended format; 5.3.1.1: hours and minutes with a colon. From memory.
test('a date is written year, month, day, with zeros, as the clock here shows it', () => {
  expect(dateWords(noon, '12', { with: 'nothing', height: 4 })).toBe('2026-03-05');
  expect(dateWords(noon, '12', { with: 'time', height: 4 })).toBe('2026-03-05 09:07');
  expect(dateWords(noon, '12', { with: 'page', height: 4 })).toBe('2026-03-05 p. 12');
});
