import type { Folder } from '@stylet/core/api';
import { branches, documentsWithin, idsWithin, pathTo } from './folder-tree';

const folder = (id: string, parentId: string | null): Folder => ({ id, name: id, parentId });
const folders = [
  folder('autumn', 'season'),
  folder('notes', null),
  folder('season', null),
  folder('week', 'autumn'),
];

test('folders stand after the ones they lie in', () => {
  const shown = branches(folders).map(({ folder: { id }, depth }) => `${depth} ${id}`);
  expect(shown).toEqual(['0 notes', '0 season', '1 autumn', '2 week']);
  const others = branches(folders, 'autumn').map(({ folder: { id } }) => id);
  expect(others).toEqual(['notes', 'season']);
});

test('the way to a folder, and what lies in it', () => {
  const ids = (list: readonly Folder[]): string[] => list.map(({ id }) => id);
  expect(ids(pathTo(folders, 'week'))).toEqual(['season', 'autumn', 'week']);
  expect(pathTo(folders, 'gone')).toEqual([]);
  expect(pathTo(folders, undefined)).toEqual([]);
  expect([...idsWithin(folders, 'season')].sort()).toEqual(['autumn', 'season', 'week']);
  const counts: Record<string, number> = { week: 2, season: 1, notes: 5, autumn: 0 };
  const list = {
    folders: folders.map((one) => ({ ...one, documents: counts[one.id] })),
    outside: 7,
  };
  expect(documentsWithin(list, 'season')).toBe(3);
  expect(documentsWithin(list, undefined)).toBe(15);
});
