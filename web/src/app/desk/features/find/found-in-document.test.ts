import { matchesInOrder, type MatchOnPage } from './found-in-document';

const match = (pageId: string, at: number): MatchOnPage => ({
  kind: 'text',
  pageId,
  at,
  before: '',
  match: 'tide',
  after: '',
  boxes: [],
});
const words = new Map([
  ['a', [match('a', 0), match('a', 1)]],
  ['c', [match('c', 0)]],
]);
const named = new Map([['a', [match('a', 9)]]]);
const pages = (ids: string): { id: string }[] => [...ids].map((id) => ({ id }));
const told = (ids: string): string[] =>
  matchesInOrder(pages(ids), [words, named]).map((m) => `${m.pageIndex}:${m.pageId}${m.at}`);

test('matches go with their pages: moved, copied in front of, or removed', () => {
  expect(told('abc')).toEqual(['0:a0', '0:a1', '0:a9', '2:c0']);
  expect(told('cab')).toEqual(['0:c0', '1:a0', '1:a1', '1:a9']);
  expect(told('xabc')).toEqual(['1:a0', '1:a1', '1:a9', '3:c0']);
  expect(told('bc')).toEqual(['1:c0']);
  expect(told('')).toEqual([]);
});
