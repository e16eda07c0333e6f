import { accountStorage, nameFor, storageFor } from './account';

beforeEach(() => localStorage.clear());

test('what accounts keep in one browser lies apart, and what was here before is the first one’s', () => {
  localStorage.setItem('stylet.kit', 'before');
  const other = storageFor('somebody', localStorage);
  expect(accountStorage.getItem('stylet.kit')).toBe('before');
  expect(other.getItem('stylet.kit')).toBeNull();
  other.setItem('stylet.kit', 'theirs');
  accountStorage.removeItem('stylet.kit');
  expect(other.getItem('stylet.kit')).toBe('theirs');
  expect(accountStorage.getItem('stylet.kit')).toBeNull();
});

test('names of two accounts are never the same', () => {
  expect(new Set(['local', 'a', 'b'].map((account) => nameFor(account, 'stylet'))).size).toBe(3);
});
