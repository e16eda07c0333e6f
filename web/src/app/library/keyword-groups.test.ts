import type { HungKeyword } from '@stylet/core/api';
import { groupsOf } from './keyword-groups';

const hung = (word: string, title: string): HungKeyword => ({
  id: title + word,
  word,
  title,
  documentId: title,
  place: { pageId: 'p' },
  label: '1',
  face: [],
});

test('keywords are in the order of the alphabet, one for each word, without words last', () => {
  const list = [hung('', 'A'), hung('Swash', 'B'), hung('berm', 'A'), hung('swash', 'C')];
  expect(groupsOf(list, '').map(({ word, hung: places }) => [word, places.length])).toEqual([
    ['berm', 1],
    ['Swash', 2],
    ['', 1],
  ]);
});

test('letters are found whatever their case and accents', () => {
  const list = [hung('Dépôt', 'A'), hung('berm', 'A')];
  expect(groupsOf(list, ' DEPO').map(({ word }) => word)).toEqual(['Dépôt']);
});
